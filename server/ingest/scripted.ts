/** Fewer characters than this are a frame rather than a page's content. */
const LITTLE = 250;
const ASKS_FOR_SCRIPT = /(enable|turn on|needs?|requires?|without)\s+java\s?script/i;

/** True for a page whose content only a script makes: next to no text of its own, and scripts that would bring it. */
export function looksScripted(document: Document): boolean {
  const scripts = [...document.querySelectorAll('script')].filter((s) =>
    /^(|module|text\/javascript|application\/javascript)$/i.test(s.getAttribute('type') ?? ''),
  );
  if (scripts.length === 0) return false;
  const copy = document.body.cloneNode(true) as HTMLElement;
  const asks =
    [...copy.querySelectorAll('noscript')].some((el) => ASKS_FOR_SCRIPT.test(el.textContent ?? '')) ||
    ASKS_FOR_SCRIPT.test(copy.textContent ?? '');
  for (const element of copy.querySelectorAll('script, style, noscript, template, nav, header, footer'))
    element.remove();
  const text = (copy.textContent ?? '').replace(/\s+/g, ' ').trim();
  const holder = copy.querySelector('#root:empty, #app:empty, [data-reactroot]:empty, main:empty, [id$="-root"]:empty');
  return text.length < LITTLE && (asks || holder !== null || text.length < 40);
}
