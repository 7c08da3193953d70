import type { AssetCollector } from './assets';
import { decoded } from './decoded';
import { escapeHtml } from './documents';

/** Where pages put the address of a picture that is to come later (common practice). */
const LATER = ['data-src', 'data-original', 'data-lazy-src', 'data-lazy', 'data-url', 'data-image'];
const LATER_SETS = ['data-srcset', 'data-lazy-srcset', 'data-original-set'];

/** Pictures that wait for a script or for scrolling get their address now. */
export function showLazy(document: Document): void {
  for (const element of document.querySelectorAll('img, source')) {
    const later = LATER.map((name) => element.getAttribute(name)).find(Boolean),
      set = LATER_SETS.map((name) => element.getAttribute(name)).find(Boolean);
    if (later && element.nodeName === 'IMG') element.setAttribute('src', later);
    if (set) element.setAttribute('srcset', set);
  }
  for (const fallback of document.querySelectorAll('noscript')) {
    const picture = fallback.querySelector('img'),
      before = fallback.previousElementSibling,
      placeholder = before?.matches('img') ? before : before?.querySelector('img');
    if (!picture || (placeholder && !/^data:|^$/.test(placeholder.getAttribute('src') ?? ''))) continue;
    (placeholder ?? fallback).replaceWith(picture.cloneNode(true));
  }
}

/** What plays or embeds something from elsewhere becomes a still of it, where it has one, and a link to it. */
export function noteEmbedded(document: Document, base: string): void {
  for (const element of document.querySelectorAll('iframe, video, audio, object, embed')) {
    const given =
      element.getAttribute('src') ??
      element.getAttribute('data-src') ??
      element.getAttribute('data') ??
      element.querySelector('source[src]')?.getAttribute('src');
    const address = given && URL.canParse(given, base) ? new URL(given, base).href : '';
    if (!/^https?:/.test(address) || isTiny(element)) continue;
    const name = element.getAttribute('title') ?? element.getAttribute('aria-label') ?? '',
      poster = element.getAttribute('poster');
    const figure = document.createElement('figure');
    figure.innerHTML = `${poster ? `<img src="${escapeHtml(poster)}" alt="${escapeHtml(name)}">` : ''}<figcaption>${WORDS[element.nodeName] ?? 'Embedded'}: <a href="${escapeHtml(address)}">${escapeHtml(name || address)}</a></figcaption>`;
    element.replaceWith(figure);
  }
}

const WORDS: Readonly<Record<string, string>> = { VIDEO: 'Film', AUDIO: 'Recording', IFRAME: 'Embedded page' };

/** Frames that nobody sees are trackers. */
function isTiny(element: Element): boolean {
  const size = (name: string): number => Number.parseInt(element.getAttribute(name) ?? '100', 10);
  const style = element.getAttribute('style') ?? '';
  return (
    element.hasAttribute('hidden') ||
    size('width') < 5 ||
    size('height') < 5 ||
    /display:\s*none|visibility:\s*hidden|(width|height):\s*[01](px)?\s*(;|$)/i.test(style)
  );
}

/** `background="…"` of old pages, as a declaration. */
export function backgroundsAsStyle(document: Document): void {
  for (const element of document.querySelectorAll('[background]')) {
    const address = element.getAttribute('background')!.replace(/["\\\n]/g, encodeURIComponent);
    element.setAttribute('style', `background-image:url("${address}");${element.getAttribute('style') ?? ''}`);
  }
}

/** SVG pictures that use a symbol of the page or of a file of symbols hold it themselves. */
export async function standAlone(document: Document, base: string, collector: AssetCollector): Promise<void> {
  await Promise.all(
    [...document.querySelectorAll('svg use')].map(async (use) => {
      const href = use.getAttribute('href') ?? use.getAttribute('xlink:href') ?? '';
      const [file = '', id = ''] = href.split('#');
      const owner =
        file === ''
          ? document
          : await collector.loadMarkup(URL.canParse(file, base) ? new URL(file, base).href : '', document);
      const symbol = id ? owner?.getElementById(decoded(id)) : undefined;
      if (!symbol || symbol.contains(use)) return use.remove();
      const svg = use.closest('svg')!,
        box = symbol.getAttribute('viewBox');
      if (box && !svg.hasAttribute('viewBox')) svg.setAttribute('viewBox', box);
      const group = document.createElementNS('http://www.w3.org/2000/svg', 'g');
      for (const name of ['x', 'y', 'transform', 'fill', 'stroke', 'class', 'style'])
        if (use.hasAttribute(name) && !/^[xy]$/.test(name)) group.setAttribute(name, use.getAttribute(name)!);
      const parts = symbol.nodeName.toLowerCase() === 'symbol' ? [...symbol.childNodes] : [symbol];
      group.append(...parts.map((part) => document.importNode(part, true)));
      use.replaceWith(group);
    }),
  );
}
