import type { InlineMath } from 'mdast-util-math';
import type { Root, Text } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { mathFromMarkdown } from 'mdast-util-math';
import { math } from 'micromark-extension-math';
import { visit } from 'unist-util-visit';

/** The one parser of Markdown: CommonMark 0.31 with `$formulas$`. */
export function parseMarkdown(markdown: string): Root {
  const root = fromMarkdown(markdown, { extensions: [math()], mdastExtensions: [mathFromMarkdown()] });
  return pricesAsWords(root, markdown);
}

/**
 * `$5-$10` are two prices: a formula begins and ends beside a sign that is no blank, and no digit follows its end
 * (common practice). What is none stays as it was written. Changes the tree it is given.
 */
export function pricesAsWords(root: Root, markdown: string): Root {
  if (!markdown.includes('$')) return root;
  visit(root, 'inlineMath', (node: InlineMath, index, parent) => {
    const from = node.position?.start.offset ?? 0;
    const to = node.position?.end.offset ?? 0;
    const written = markdown.slice(from, to);
    const inner = written.replace(/^\$+|\$+$/g, '');
    const isFormula =
      written.startsWith('$$') || (/^\S/.test(inner) && /\S$/.test(inner) && !/^\d/.test(markdown.slice(to)));
    if (isFormula || !parent || index === undefined) return;
    const words: Text = { type: 'text', value: written };
    parent.children.splice(index, 1, words);
  });
  return root;
}
