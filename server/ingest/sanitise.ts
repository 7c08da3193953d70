import { plainEscapes } from './stylesheets';
import createDOMPurify, { type Config, type WindowLike } from 'dompurify';

/** What never enters a snapshot, besides what the sanitiser's own list leaves out. */
const CONFIG: Config = {
  WHOLE_DOCUMENT: true,
  ADD_TAGS: ['main'],
  FORBID_TAGS: ['style', 'form', 'template', 'noscript', 'iframe', 'audio', 'video', 'source', 'track', 'dialog', 'slot'],
  FORBID_ATTR: ['srcset', 'sizes', 'ping', 'target', 'autofocus', 'autoplay', 'background', 'poster', 'action', 'formaction', 'contenteditable', 'tabindex', 'accesskey', 'popover', 'is', 'slot', 'nonce', 'background-image'],
  ALLOW_DATA_ATTR: false,
  // It would take away ids such as `title`, to which links within the page lead; see `withoutNames`.
  SANITIZE_DOM: false,
  // The library asks this of every value that might be an address: what has no scheme is none that could act.
  ALLOWED_URI_REGEXP: /^(?:(?:https?|mailto):|[^a-z]|[a-z+.-]+(?:[^a-z+.\-:]|$))/i,
  KEEP_CONTENT: true,
};

/** Contents of these go with the element; of others that are taken out, the content stays. */
const WITH_CONTENT = 'script, template, noscript, iframe, object, embed, audio, video, base, meta, link, [hidden], frameset, annotation, annotation-xml';

/** Removes everything that could act, lets forms stand as they are without taking input, and makes addresses of links absolute. Returns the body's HTML and attributes worth keeping. */
export function sanitise(document: Document, base: string): { readonly body: string; readonly bodyClass: string; readonly rootClass: string } {
  for (const element of document.querySelectorAll(WITH_CONTENT)) element.remove();
  for (const element of document.querySelectorAll('[style]')) if (/display\s*:\s*none/i.test(element.getAttribute('style') ?? '')) element.remove();
  absoluteLinks(document, base);
  const purify = createDOMPurify(document.defaultView as unknown as WindowLike);
  const clean = purify.sanitize(document.documentElement.outerHTML, { ...CONFIG, RETURN_DOM: true }) as unknown as HTMLElement;
  dropRemote(clean);
  withoutNames(clean);
  for (const field of clean.querySelectorAll('input, select, textarea')) field.setAttribute('inert', '');
  const body = clean.querySelector('body') ?? clean;
  return { body: body.innerHTML, bodyClass: body.getAttribute('class') ?? '', rootClass: clean.getAttribute('class') ?? '' };
}

/** Links within the page stay within it; others become absolute, so that they lead somewhere from the snapshot. */
function absoluteLinks(document: Document, base: string): void {
  const page = base.split('#')[0]!;
  for (const link of document.querySelectorAll('a[href], area[href]')) {
    const href = link.getAttribute('href') ?? '';
    if (href.startsWith('#') || !URL.canParse(href, base)) continue;
    const absolute = new URL(href, base).href;
    link.setAttribute('href', absolute.startsWith(`${page}#`) ? absolute.slice(page.length) : absolute);
  }
}

/** Only by a name, and only of these, could an element stand in for what a document itself has (HTML Standard, 3.1.6); an id could not. */
function withoutNames(root: HTMLElement): void {
  for (const element of root.querySelectorAll('[name]')) if (!/^(a|map|input|select|textarea|button|meter|output)$/i.test(element.nodeName)) element.removeAttribute('name');
}

/** After everything was brought inside, an address is a link's, a place within the page, or an asset's; nothing else loads. */
function dropRemote(root: HTMLElement): void {
  for (const element of root.querySelectorAll('[src]')) if (!element.getAttribute('src')!.startsWith('asset/')) element.removeAttribute('src');
  for (const element of root.querySelectorAll('[href]')) {
    const href = element.getAttribute('href')!;
    if (!/^(a|area)$/i.test(element.nodeName) && !href.startsWith('#') && !href.startsWith('asset/')) element.removeAttribute('href');
  }
  for (const element of root.querySelectorAll('svg, svg *')) {
    for (const { name, value } of [...element.attributes]) {
      if (name !== 'style' && /url\((?!\s*["']?#)/i.test(plainEscapes(value))) element.removeAttribute(name);
      if (/^(xlink:)?href$/.test(name) && !/^a$/i.test(element.nodeName) && !/^(#|asset\/)/.test(value)) element.removeAttribute(name);
    }
  }
}
