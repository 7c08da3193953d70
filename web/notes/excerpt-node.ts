import { Node, type Editor } from '@tiptap/core';
import type { Node as Block } from '@tiptap/pm/model';
import { NodeSelection, Plugin, PluginKey, type EditorState, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { isEqual } from 'es-toolkit';
import { readExcerpt } from '@avrelle/core/study';
import type { StudyExcerpt } from '@avrelle/core/wire';
import { ExcerptView, type ExcerptSpec } from './excerpt-view';

interface Options {
  /** What is known of them when the note is opened. */
  readonly excerpts: readonly StudyExcerpt[];
  /** Leads to the passage. */
  onOpen(annotationId: string): void;
  /** An excerpt was brought that stands here already; it is shown. */
  onAgain(annotationId: string): void;
}

type Known = ReadonlyMap<string, StudyExcerpt>;
const known = new PluginKey<{ readonly of: Known; readonly shown: DecorationSet }>('known excerpts');

/** An excerpt in a study note: one whole, that leads back to its passage. Its words are Markdown outside. */
export const excerptNode = (options: Options) =>
  Node.create({
    name: 'excerpt',
    group: 'block',
    atom: true,
    draggable: true,
    selectable: true,
    addAttributes: () => ({
      annotationId: { default: '', parseHTML: (element: HTMLElement) => element.dataset.annotation ?? '' },
      markdown: { default: '', parseHTML: (element: HTMLElement) => element.dataset.excerpt ?? '' },
    }),
    // Before the rule of plain quotations.
    parseHTML: () => [{ tag: 'blockquote[data-excerpt]', priority: 60 }],
    renderHTML: ({ node }) => [
      'blockquote',
      excerptAttributes(node.attrs),
      readExcerpt(String(node.attrs.markdown))?.passage ?? '',
    ],
    renderText: ({ node }) => String(node.attrs.markdown),
    addNodeView() {
      return ({ node, decorations, editor }) =>
        new ExcerptView(node, decorations as readonly Decoration[], editor, options.onOpen);
    },
    addKeyboardShortcuts() {
      return {
        'Alt-ArrowUp': ({ editor }) => moveExcerpt(editor, -1),
        'Alt-ArrowDown': ({ editor }) => moveExcerpt(editor, 1),
      };
    },
    addProseMirrorPlugins: () => [knownExcerpts(options.excerpts), onlyOnce(options.onAgain)],
  });

/** As it is dragged and pasted, here and elsewhere. */
export const excerptAttributes = ({ annotationId, markdown }: Readonly<Record<string, unknown>>) => ({
  'data-excerpt': String(markdown),
  'data-annotation': String(annotationId),
});

/** Tells the excerpts of a note how they stand. */
export function knowExcerpts(editor: Editor, excerpts: readonly StudyExcerpt[]): void {
  const of = byAnnotation(excerpts);
  const { state, view } = editor;
  if (isEqual(known.getState(state)?.of, of)) return;
  view.dispatch(state.tr.setMeta(known, of).setMeta('addToHistory', false));
}

const byAnnotation = (excerpts: readonly StudyExcerpt[]): Known =>
  new Map(excerpts.map((one) => [one.annotationId, one]));

/** How the excerpt stands that is chosen; undefined where none is. */
export function chosenExcerpt(
  state: EditorState,
): { readonly markdown: string; readonly annotationId: string; readonly known: StudyExcerpt | undefined } | undefined {
  const { selection } = state;
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== 'excerpt') return undefined;
  const { markdown, annotationId } = selection.node.attrs as Record<'markdown' | 'annotationId', string>;
  return { markdown, annotationId, known: known.getState(state)?.of.get(annotationId) };
}

/** Where an annotation stands; undefined where it does not. */
export function placeOfExcerpt(doc: Block, annotationId: string): number | undefined {
  let found: number | undefined;
  eachExcerpt(doc, (node, at) => {
    if (node.attrs.annotationId === annotationId) found ??= at;
  });
  return found;
}

export function eachExcerpt(doc: Block, each: (node: Block, at: number) => void): void {
  doc.descendants((node, at) => {
    if (node.type.name === 'excerpt') each(node, at);
    return !node.isTextblock && node.type.name !== 'excerpt';
  });
}

/** The chosen excerpt before or behind its neighbour. */
export function moveExcerpt(editor: Editor, by: 1 | -1): boolean {
  const { state, view } = editor;
  const { selection, tr } = state;
  if (!chosenExcerpt(state) || !(selection instanceof NodeSelection)) return false;
  const parent = selection.$from.parent;
  const index = selection.$from.index() + by;
  if (index < 0 || index >= parent.childCount) return true;
  const neighbour = parent.child(index).nodeSize;
  const to = by < 0 ? selection.from - neighbour : selection.from + neighbour;
  tr.delete(selection.from, selection.to).insert(to, selection.node);
  view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, to)).scrollIntoView());
  return true;
}

function knownExcerpts(excerpts: readonly StudyExcerpt[]): Plugin {
  const shownOf = (doc: Block, of: Known): DecorationSet => {
    const shown: Decoration[] = [];
    eachExcerpt(doc, (node, at) => {
      const spec: ExcerptSpec = { excerpt: of.get(String(node.attrs.annotationId)) };
      shown.push(Decoration.node(at, at + node.nodeSize, {}, { ...spec }));
    });
    return DecorationSet.create(doc, shown);
  };
  return new Plugin({
    key: known,
    state: {
      init: (_, { doc }) => ({ of: byAnnotation(excerpts), shown: shownOf(doc, byAnnotation(excerpts)) }),
      apply(tr, before) {
        const of = (tr.getMeta(known) as Known | undefined) ?? before.of;
        if (of === before.of && !tr.docChanged) return before;
        // While one types they only move.
        if (of === before.of && !bringsExcerpt(tr)) return { of, shown: before.shown.map(tr.mapping, tr.doc) };
        return { of, shown: shownOf(tr.doc, of) };
      },
    },
    props: { decorations: (state) => known.getState(state)?.shown },
  });
}

/** Whether a change puts an excerpt in, or writes one anew. */
function bringsExcerpt(tr: Transaction): boolean {
  let brings = false;
  tr.steps.forEach((step, n) =>
    step.getMap().forEach((_from, _to, start, end) => {
      const doc = tr.docs[n + 1] ?? tr.doc;
      doc.nodesBetween(start, end, (node) => {
        brings ||= node.type.name === 'excerpt';
        return !brings;
      });
    }),
  );
  return brings;
}

/** An annotation stands in a note once: what is brought again is not put in, and what stands there is shown. */
function onlyOnce(onAgain: Options['onAgain']): Plugin {
  return new Plugin({
    appendTransaction(transactions, before, after) {
      if (!transactions.some((tr) => tr.docChanged && bringsExcerpt(tr))) return null;
      const places = new Map<string, number[]>();
      eachExcerpt(after.doc, (node, at) => {
        const id = String(node.attrs.annotationId);
        places.set(id, [...(places.get(id) ?? []), at]);
      });
      const twice = [...places].filter(([, at]) => at.length > 1);
      if (twice.length === 0) return null;
      return withoutAgain(after.tr, twice, former(before.doc, transactions), onAgain);
    },
  });
}

/** Where excerpts that stood there before stand now. */
function former(doc: Block, transactions: readonly Transaction[]): ReadonlySet<number> {
  const places = new Set<number>();
  eachExcerpt(doc, (_, at) => {
    const mapped = transactions.reduce<number | null>((place, tr) => {
      if (place === null) return null;
      const result = tr.mapping.mapResult(place, 1);
      return result.deletedAfter ? null : result.pos;
    }, at);
    if (mapped !== null) places.add(mapped);
  });
  return places;
}

function withoutAgain(
  tr: Transaction,
  twice: readonly (readonly [string, readonly number[]])[],
  stood: ReadonlySet<number>,
  onAgain: Options['onAgain'],
): Transaction {
  for (const [id, places] of twice) {
    const keep = places.find((at) => stood.has(at)) ?? places[0]!;
    for (const at of [...places].reverse()) if (at !== keep) tr.delete(tr.mapping.map(at), tr.mapping.map(at + 1, -1));
    tr.setSelection(NodeSelection.create(tr.doc, tr.mapping.map(keep))).scrollIntoView();
    queueMicrotask(() => onAgain(id));
  }
  return tr;
}
