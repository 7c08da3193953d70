import type { JSONContent } from '@tiptap/core';
import type { BlockContent, Blockquote, ListItem, Node, PhrasingContent, Root, RootContent } from 'mdast';
import 'mdast-util-math';
import remarkMath from 'remark-math';
import { parseMarkdown } from '@avrelle/core/markdown';
import { excerptIn } from '@avrelle/core/study';
import remarkStringify from 'remark-stringify';
import { unified } from 'unified';

const writer = unified()
  .use(remarkStringify, { bullet: '-', emphasis: '*', rule: '-', listItemIndent: 'one', resourceLink: true })
  .use(remarkMath);

type Mark = NonNullable<JSONContent['marks']>[number];

/**
 * A note's Markdown (CommonMark 0.31, `$formulas$`) as a document of the editor. What the editor does not have stays as
 * the words it was written with. With `excerpts`, a quotation that leads back to an annotation is one whole.
 */
export function fromMarkdown(markdown: string, { excerpts = false } = {}): JSONContent {
  const blocks = parseMarkdown(markdown).children.flatMap((node) => block(node, markdown, excerpts));
  return { type: 'doc', content: blocks.length ? blocks : [{ type: 'paragraph' }] };
}

function block(node: RootContent, source: string, excerpts: boolean): JSONContent[] {
  const within = (children: readonly RootContent[]): JSONContent[] =>
    children.flatMap((child) => block(child, source, excerpts));
  switch (node.type) {
    case 'paragraph':
      return [{ type: 'paragraph', content: node.children.flatMap((child) => inline(child, [], source)) }];
    case 'heading':
      return [
        {
          type: 'heading',
          attrs: { level: node.depth },
          content: node.children.flatMap((child) => inline(child, [], source)),
        },
      ];
    case 'blockquote':
      if (excerpts && excerptIn(node)) return [excerpt(node, source)];
      return [{ type: 'blockquote', content: someWords(within(node.children)) }];
    case 'list':
      return [
        {
          type: node.ordered ? 'orderedList' : 'bulletList',
          ...(node.ordered ? { attrs: { start: node.start ?? 1 } } : {}),
          content: within(node.children),
        },
      ];
    case 'listItem':
      return [{ type: 'listItem', content: startingWithWords(within(node.children)) }];
    case 'code':
      return [
        {
          type: 'codeBlock',
          attrs: { language: node.lang ?? null },
          ...(node.value ? { content: [{ type: 'text', text: node.value }] } : {}),
        },
      ];
    case 'math':
      return [{ type: 'formulaBlock', attrs: { tex: node.value } }];
    case 'thematicBreak':
      return [{ type: 'horizontalRule' }];
    default:
      return [{ type: 'paragraph', content: [{ type: 'text', text: written(node, source) }] }];
  }
}

/** An excerpt is kept as it was written, without what stands before its lines in a list or a quotation. */
function excerpt(node: Blockquote, source: string): JSONContent {
  const before = (node.position?.start.column ?? 1) - 1;
  const [first = '', ...lines] = written(node, source).split('\n');
  const markdown = [first, ...lines.map((line) => line.slice(before))].join('\n');
  return { type: 'excerpt', attrs: { annotationId: excerptIn(node)!.annotationId, markdown } };
}

/** A quotation holds at least a paragraph, an item begins with one. */
const someWords = (content: JSONContent[]): JSONContent[] => (content.length ? content : [{ type: 'paragraph' }]);
const startingWithWords = (content: JSONContent[]): JSONContent[] =>
  content[0]?.type === 'paragraph' ? content : [{ type: 'paragraph' }, ...content];
const texOf = (node: JSONContent): string => String(node.attrs?.tex ?? '').trim();

function inline(node: PhrasingContent, marks: readonly Mark[], source: string): JSONContent[] {
  const text = (words: string, more: readonly Mark[] = marks): JSONContent[] =>
    words ? [{ type: 'text', text: words, ...(more.length ? { marks: [...more] } : {}) }] : [];
  const marked = (children: readonly PhrasingContent[], mark: Mark): JSONContent[] =>
    children.flatMap((child) => inline(child, [...marks, mark], source));
  switch (node.type) {
    case 'text':
      return node.value.split('\n').flatMap((line, n) => [...(n > 0 ? [{ type: 'hardBreak' }] : []), ...text(line)]);
    case 'strong':
      return marked(node.children, { type: 'bold' });
    case 'emphasis':
      return marked(node.children, { type: 'italic' });
    case 'link':
      return marked(node.children, { type: 'link', attrs: { href: node.url } });
    case 'inlineCode':
      return text(node.value, [...marks, { type: 'code' }]);
    case 'inlineMath':
      return [{ type: 'formula', attrs: { tex: node.value } }];
    case 'image':
      return [{ type: 'picture', attrs: { src: node.url, alt: node.alt ?? '' } }];
    case 'break':
      return [{ type: 'hardBreak' }];
    default:
      return text(written(node, source));
  }
}

const written = (node: Node, source: string): string =>
  source.slice(node.position?.start.offset ?? 0, node.position?.end.offset ?? 0);

/** A document of the editor as Markdown. */
export function toMarkdown(doc: JSONContent): string {
  const root: Root = { type: 'root', children: (doc.content ?? []).flatMap(fromBlock) };
  return writer.stringify(root).trim();
}

function fromBlock(node: JSONContent): RootContent[] {
  const within = (): BlockContent[] => (node.content ?? []).flatMap(fromBlock) as BlockContent[];
  switch (node.type) {
    case 'paragraph': {
      const children = phrases(withoutEnds(node.content ?? []));
      return children.length ? [{ type: 'paragraph', children }] : [];
    }
    case 'heading':
      return [
        { type: 'heading', depth: (node.attrs?.level ?? 1) as 1, children: phrases(withoutEnds(node.content ?? [])) },
      ];
    case 'blockquote': {
      const children = within();
      return children.length ? [{ type: 'blockquote', children }] : [];
    }
    case 'bulletList':
      return [
        { type: 'list', ordered: false, start: null, spread: false, children: within() as unknown as ListItem[] },
      ];
    case 'orderedList':
      return [
        {
          type: 'list',
          ordered: true,
          start: Number(node.attrs?.start ?? 1),
          spread: false,
          children: within() as unknown as ListItem[],
        },
      ];
    case 'listItem':
      return [{ type: 'listItem', spread: false, children: within() }];
    case 'codeBlock':
      return [codeOf(node)];
    case 'formulaBlock':
      return formulaOf(node);
    case 'horizontalRule':
      return [{ type: 'thematicBreak' }];
    case 'excerpt':
      // Goes out as it is.
      return [{ type: 'html', value: String(node.attrs?.markdown) }];
    default:
      return [];
  }
}

const codeOf = (node: JSONContent): RootContent => ({
  type: 'code',
  lang: (node.attrs?.language as string | null) ?? null,
  value: (node.content ?? []).map((c) => c.text ?? '').join(''),
});

/** An empty formula is none; written down, it would swallow what follows. */
const formulaOf = (node: JSONContent): RootContent[] => (texOf(node) ? [{ type: 'math', value: texOf(node) }] : []);

/** Breaks and blanks at the ends of a paragraph, and blanks beside a break, have nothing to part; written down they would be entities. */
function withoutEnds(nodes: readonly JSONContent[]): readonly JSONContent[] {
  const isBreak = (node: JSONContent | undefined): boolean => node === undefined || node.type === 'hardBreak';
  const isCode = (node: JSONContent): boolean => node.marks?.some((m) => m.type === 'code') ?? false;
  const trimmed = nodes.flatMap((node, n): JSONContent[] => {
    if (node.type !== 'text' || isCode(node)) return [node];
    let text = node.text ?? '';
    if (isBreak(nodes[n - 1])) text = text.replace(/^[ \t]+/, '');
    if (isBreak(nodes[n + 1])) text = text.replace(/[ \t]+$/, '');
    return text === '' ? [] : [{ ...node, text }];
  });
  // What is left at an end may end in a blank by now.
  if (trimmed.length < nodes.length) return withoutEnds(trimmed);
  const from = trimmed.findIndex((n) => !isBreak(n));
  return from < 0 ? [] : trimmed.slice(from, trimmed.findLastIndex((n) => !isBreak(n)) + 1);
}

/** Outermost first: a link holds what is bold in it. */
const NESTING = ['link', 'bold', 'italic'] as const;

function phrases(nodes: readonly JSONContent[]): PhrasingContent[] {
  const made: PhrasingContent[] = [];
  for (let at = 0; at < nodes.length;) {
    const node = nodes[at]!;
    const mark = NESTING.map((type) => node.marks?.find((m) => m.type === type)).find(Boolean);
    if (!mark) {
      made.push(...leaf(node));
      at++;
      continue;
    }
    let end = at + 1;
    while (end < nodes.length && nodes[end]!.marks?.some((m) => sameMark(m, mark))) end++;
    const children = phrases(
      nodes.slice(at, end).map((n) => ({ ...n, marks: n.marks!.filter((m) => !sameMark(m, mark)) })),
    );
    if (mark.type === 'link') made.push({ type: 'link', url: String(mark.attrs?.href ?? ''), children });
    else made.push({ type: mark.type === 'bold' ? 'strong' : 'emphasis', children });
    at = end;
  }
  return made;
}

const sameMark = (a: Mark, b: Mark): boolean => a.type === b.type && a.attrs?.href === b.attrs?.href;

function leaf(node: JSONContent): PhrasingContent[] {
  switch (node.type) {
    case 'text':
      return [
        node.marks?.some((m) => m.type === 'code')
          ? { type: 'inlineCode', value: node.text ?? '' }
          : { type: 'text', value: node.text ?? '' },
      ];
    case 'hardBreak':
      return [{ type: 'break' }];
    case 'formula':
      return texOf(node) ? [{ type: 'inlineMath', value: texOf(node) }] : [];
    case 'picture':
      return [{ type: 'image', url: String(node.attrs?.src ?? ''), alt: String(node.attrs?.alt ?? '') }];
    default:
      return [];
  }
}

/** The words of a document, without those that are code or formulas: where tags stand. */
export const wordsOf = (doc: JSONContent): string =>
  (doc.type === 'codeBlock' || doc.marks?.some((m) => m.type === 'code' || m.type === 'link')
    ? ' '
    : (doc.text ?? (doc.type === 'hardBreak' ? '\n' : ''))) +
  (doc.type === 'codeBlock' ? '' : (doc.content ?? []).map(wordsOf).join('')) +
  (doc.type === 'paragraph' ? '\n' : '');
