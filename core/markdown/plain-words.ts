import type { Nodes, Parents } from 'mdast';
import type {} from 'mdast-util-math';
import { parseMarkdown } from './parse';

/** A text without any of these is words alone, but for blanks at the ends of its lines (CommonMark 0.31); most notes are. */
const SIGNS = /[\\`*_[<&$]|^[ \t]*(?:[#>+=~-]|\d+[.)])|^(?: {4}|\t)/m;

/** The words of a note as they are read, without the signs of its Markdown: for a line of a list, a folded note, a mail. */
export function plainWords(markdown: string): string {
  const text = markdown.trim();
  return SIGNS.test(text)
    ? lines(parseMarkdown(text)).trim()
    : text.replace(/[ \t]*\n[ \t]*/g, '\n').replace(/\n{2,}/g, '\n');
}

function lines(node: Nodes): string {
  switch (node.type) {
    case 'root':
    case 'blockquote':
    case 'list':
    case 'listItem':
      return withLines(node);
    case 'text':
    case 'inlineCode':
    case 'code':
    case 'html':
    case 'inlineMath':
    case 'math':
      return node.value;
    case 'image':
    case 'imageReference':
      return node.alt ?? '';
    case 'break':
      return '\n';
    case 'thematicBreak':
    case 'definition':
      return '';
    default:
      return 'children' in node ? node.children.map(lines).join('') : '';
  }
}

const withLines = (node: Parents): string => node.children.map(lines).filter(Boolean).join('\n');
