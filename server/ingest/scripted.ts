import { bodyOf, contentOf, fits, select, selectOne, type PageElement, type PageTree } from './page-tree';

/** Fewer characters than this are a frame rather than a page's content. */
const LITTLE = 250;
const ASKS_FOR_SCRIPT = /(enable|turn on|needs?|requires?|without)\s+java\s?script/i;
const SCRIPT_TYPE = /^(|module|text\/javascript|application\/javascript)$/i;
/** Where a script would put a page's content. */
const HOLDER = '#root:empty, #app:empty, [data-reactroot]:empty, main:empty, [id$="-root"]:empty';
const isBesides = fits('script, style, noscript, template, nav, header, footer');

/** True for a page whose content only a script makes: next to no text of its own, and scripts that would bring it. */
export function looksScripted(tree: PageTree): boolean {
  const scripts = select(tree, 'script').filter(({ attribs }) => SCRIPT_TYPE.test(attribs.type ?? ''));
  if (scripts.length === 0) return false;
  const body = bodyOf(tree);
  const text = wordsOf(body).replace(/\s+/g, ' ').trim();
  if (text.length >= LITTLE) return false;
  return text.length < 40 || ASKS_FOR_SCRIPT.test(contentOf(body)) || selectOne(body, HOLDER) !== undefined;
}

function wordsOf(element: PageElement): string {
  return element.children
    .map((child) => {
      if (!('attribs' in child)) return contentOf(child);
      return isBesides(child) ? '' : wordsOf(child);
    })
    .join('');
}
