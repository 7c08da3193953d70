import { plainEscapes } from './stylesheets';
import createDOMPurify, { type Config, type WindowLike } from 'dompurify';

/** What never enters a snapshot, besides what the sanitiser's own list leaves out. */
const CONFIG: Config = {
  WHOLE_DOCUMENT: true,
  ADD_TAGS: ['main'],
  ADD_ATTR: ['alttext'],
  FORBID_TAGS: [
    'style',
    'form',
    'template',
    'noscript',
    'iframe',
    'audio',
    'video',
    'source',
    'track',
    'dialog',
    'slot',
  ],
  FORBID_ATTR: [
    'srcset',
    'sizes',
    'ping',
    'target',
    'autofocus',
    'autoplay',
    'background',
    'poster',
    'action',
    'formaction',
    'contenteditable',
    'tabindex',
    'accesskey',
    'popover',
    'is',
    'slot',
    'nonce',
    'background-image',
  ],
  ALLOW_DATA_ATTR: false,
  // It would take away ids such as `title`, to which links within the page lead; see `withoutNames`.
  SANITIZE_DOM: false,
  // The library asks this of every value that might be an address: what has no scheme is none that could act.
  ALLOWED_URI_REGEXP: /^(?:(?:https?|mailto):|[^a-z]|[a-z+.-]+(?:[^a-z+.\-:]|$))/i,
  KEEP_CONTENT: true,
};

/** Contents of these go with the element; of others that are taken out, the content stays. */
const WITH_CONTENT =
  'script, template, noscript, iframe, object, embed, audio, video, base, meta, link, [hidden], frameset, annotation, annotation-xml, [style*="display" i]';

/** What is left of a page, and attributes worth keeping. */
export interface CleanPage {
  readonly body: string;
  readonly bodyClass: string;
  readonly bodyDirection: string;
  readonly rootClass: string;
  readonly rootDirection: string;
}

/**
 * Removes everything that could act, lets forms stand as they are without taking input, and makes addresses of links
 * absolute. The document was made of the page's own bytes and runs nothing; what is left of it is written down and
 * parsed anew.
 */
export function sanitise(document: Document, base: string): CleanPage {
  keepFormulas(document);
  for (const element of document.querySelectorAll(WITH_CONTENT)) if (goes(element)) element.remove();
  const purify = createDOMPurify(document.defaultView as unknown as WindowLike);
  const page = base.split('#')[0]!;
  // One walk does it all: each further one costs as much as parsing the page.
  purify.addHook('afterSanitizeAttributes', (element) => {
    absoluteLink(element, base, page);
    dropRemote(element);
    withoutName(element);
    if (FIELD.test(element.nodeName)) element.setAttribute('inert', '');
  });
  const root = sanitised(
    document,
    (given, more) => purify.sanitize(given, { ...CONFIG, ...more }) as unknown as HTMLElement,
  );
  const body = root.querySelector('body') ?? root;
  return {
    body: body.innerHTML,
    bodyClass: body.getAttribute('class') ?? '',
    bodyDirection: directionOf(body),
    rootClass: root.getAttribute('class') ?? '',
    rootDirection: directionOf(root),
  };
}

/** What a formula was written as (MathML 3, 5.2.1, annotations) goes with its annotation, but for a word of it on the formula. */
function keepFormulas(document: Document): void {
  for (const note of document.querySelectorAll('annotation[encoding="application/x-tex"]')) {
    const formula = note.closest('math');
    if (formula && !formula.hasAttribute('alttext')) formula.setAttribute('alttext', (note.textContent ?? '').trim());
  }
}

/**
 * In place, which saves a parse. Not where a formula or drawing stands: what is nested wrongly in those would be taken out
 * with everything behind it; written down and parsed once more, it falls apart as it does in a browser.
 */
function sanitised(document: Document, sanitize: (given: string | Node, more: Config) => HTMLElement): HTMLElement {
  const root = document.documentElement;
  if (document.querySelector('math, svg')) return sanitize(root.outerHTML, { RETURN_DOM: true });
  sanitize(root, { IN_PLACE: true });
  return root;
}

const FIELD = /^(input|select|textarea)$/i;
const LINK = /^(a|area)$/i;
/** Only of these may an element have a name: by another, it could stand in for what a document itself has (HTML Standard, 3.1.6). */
const NAMED = /^(a|map|input|select|textarea|button|meter|output)$/i;

const goes = (element: Element): boolean =>
  !element.hasAttribute('style') ||
  element.matches(WITH_CONTENT.slice(0, WITH_CONTENT.lastIndexOf(','))) ||
  /display\s*:\s*none/i.test(element.getAttribute('style')!);

/** As an element says it itself (HTML Standard, 3.2.6.4); '' where it says nothing. */
function directionOf(element: Element): string {
  const direction = (element.getAttribute('dir') ?? '').toLowerCase();
  return /^(rtl|ltr|auto)$/.test(direction) ? direction : '';
}

/** Links within the page stay within it; others become absolute, so that they lead somewhere from the snapshot. */
function absoluteLink(element: Element, base: string, page: string): void {
  if (!LINK.test(element.nodeName)) return;
  const href = element.getAttribute('href');
  if (href === null || href.startsWith('#') || !URL.canParse(href, base)) return;
  const { href: absolute, protocol } = new URL(href, base);
  if (!/^(https?|mailto):$/.test(protocol)) element.removeAttribute('href');
  else element.setAttribute('href', absolute.startsWith(`${page}#`) ? absolute.slice(page.length) : absolute);
}

function withoutName(element: Element): void {
  if (element.hasAttribute('name') && !NAMED.test(element.nodeName)) element.removeAttribute('name');
}

/** After everything was brought inside, an address is a link's, a place within the page, or an asset's; nothing else loads. */
function dropRemote(element: Element): void {
  for (const { name, value } of [...element.attributes]) {
    const leads = name === 'href' || name === 'xlink:href';
    if (name === 'src' && !value.startsWith('asset/')) element.removeAttribute(name);
    else if (leads && !LINK.test(element.nodeName) && !/^(#|asset\/)/.test(value)) element.removeAttribute(name);
    else if (name !== 'style' && value.includes('(') && LOADS.test(plainEscapes(value)) && element.closest('svg'))
      element.removeAttribute(name);
  }
}

const LOADS = /url\((?!\s*["']?#)/i;
