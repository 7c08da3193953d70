/** A selector for exactly the element at a path. */
export const selectorOf = (path: string): string =>
  `:root>${path
    .split('/')
    .map((step) => `*:nth-child(${Number(step) + 1})`)
    .join('>')}`;

const INLINE = /^(inline|contents|ruby|none)/;
const LEAST_HEIGHT = 16;

/**
 * The section a click is meant for: the block under the pointer, and of boxes of one size around it the outermost.
 * `wider` steps further out. Never the page itself.
 */
export function sectionAt(target: Element, wider: number): Element | undefined {
  const view = target.ownerDocument.defaultView!;
  const body = target.ownerDocument.body;
  let here: Element | null = target;
  while (
    here &&
    here !== body &&
    (INLINE.test(view.getComputedStyle(here).display) || here.getBoundingClientRect().height < LEAST_HEIGHT)
  )
    here = here.parentElement;
  if (!here || here === body || !body.contains(here)) return undefined;
  let section = outerOfSize(here, body);
  for (let n = 0; n < wider && section.parentElement && section.parentElement !== body; n++)
    section = outerOfSize(section.parentElement, body);
  return section;
}

function outerOfSize(element: Element, body: Element): Element {
  const { width, height } = element.getBoundingClientRect();
  const around = element.parentElement;
  if (!around || around === body) return element;
  const box = around.getBoundingClientRect();
  return Math.abs(box.width - width) < 2 && Math.abs(box.height - height) < 2 ? outerOfSize(around, body) : element;
}
