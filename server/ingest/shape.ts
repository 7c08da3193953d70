import { ASIDE_ATTRIBUTE, mainText, readingMinutes, readTree, toTree, type TextNodeLike } from '@avrelle/core/text';
import type { Amount } from '@avrelle/core/wire';
import { AppError } from '../errors';
import { escapeHtml } from './documents';
import type { Ingested } from './ingest';
import { lightTree } from './light-tree';
import { NOWHERE } from './loader';
import { doctypeOf, parseHtml } from './parse-html';

/** How much of a page is kept, and how. */
export interface Choices {
  readonly amount: Amount;
  readonly width?: number | null;
  /** Elements taken out, by their path in the snapshot (child indices from the root element, elements only). */
  readonly removed?: readonly string[];
  /** In the text stream; for the amount `passage`. */
  readonly passage?: { readonly start: number; readonly end: number } | null;
}

/** What is kept of a page as it was fetched. Its snapshot is written anew, so the stream is read from it anew. */
export function shape(whole: Ingested, { amount, width = null, removed = [], passage }: Choices): Ingested {
  if (amount === 'whole' && removed.length === 0) return { ...whole, width };
  const { stored } = whole;
  const document = parseHtml(whole.snapshot, whole.address ?? NOWHERE),
    root = document.documentElement;
  const out = removed.map((path) => elementAt(root, path));
  for (const element of out) if (element && element !== root && element !== document.body) element.remove();
  if (amount === 'main') for (const aside of root.querySelectorAll(`[${ASIDE_ATTRIBUTE}]`)) aside.remove();
  if (amount === 'passage') keepPassage(document, passage ?? undefined);
  if (amount === 'link') keepLink(document, whole);
  const snapshot = `${doctypeOf(document)}\n${root.outerHTML}`,
    { text, outline, inlines } = readTree(lightTree(snapshot));
  if (!text.trim()) throw new AppError('empty_page', { address: whole.address ?? whole.meta.title });
  const assets = whole.assets.filter(({ hash }) => hash === whole.lead || snapshot.includes(hash));
  return {
    ...whole,
    amount,
    width,
    snapshot,
    text,
    outline,
    inlines,
    minutes: readingMinutes(mainText(text, outline)),
    assets,
    ...(stored ? { stored: { ...stored, assets: assets.map((a) => a.hash) } } : {}),
  };
}

function elementAt(root: Element, path: string): Element | undefined {
  let here: Element | undefined = root;
  for (const step of path.split('/')) here = here?.children[Number(step)];
  return here;
}

/** The passage with the elements it stands in, so that it keeps its look. */
function keepPassage(document: Document, passage: { start: number; end: number } | undefined): void {
  const stream = readTree(document.documentElement as unknown as TextNodeLike);
  const points = passage && passage.end <= stream.text.length ? toTree(stream, passage.start, passage.end) : undefined;
  if (!points || !passage)
    throw new AppError('outside_text', {
      start: passage?.start ?? 0,
      end: passage?.end ?? 0,
      length: stream.text.length,
    });
  const range = document.createRange();
  range.setStart(points.start.node as unknown as Node, points.start.offset);
  range.setEnd(points.end.node as unknown as Node, points.end.offset);
  let holder: Node = range.cloneContents();
  const common = range.commonAncestorContainer;
  for (
    let around: Node | null = common.nodeType === 1 ? common : common.parentNode;
    around && around !== document.body && around.nodeType === 1;
    around = around.parentNode
  ) {
    const shell = around.cloneNode(false);
    shell.appendChild(holder);
    holder = shell;
  }
  document.body.replaceChildren(holder);
  for (const aside of document.body.querySelectorAll(`[${ASIDE_ATTRIBUTE}]`)) aside.removeAttribute(ASIDE_ATTRIBUTE);
}

/** Title, what the page says of itself, and where it is. */
function keepLink(document: Document, { meta, address }: Ingested): void {
  for (const style of document.querySelectorAll('style')) style.remove();
  const where = address ? `<p><a href="${escapeHtml(address)}">${escapeHtml(address)}</a></p>` : '';
  document.body.removeAttribute('class');
  document.body.innerHTML = `<main><h1>${escapeHtml(meta.title)}</h1>${meta.description ? `<p>${escapeHtml(meta.description)}</p>` : ''}${where}</main>`;
}
