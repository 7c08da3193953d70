import type { Html, Paragraph, PhrasingContent, Root } from 'mdast';
import { mathToMarkdown } from 'mdast-util-math';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { Marked } from '../query/mark-words';
import type { InlineStyle } from '../text/inline';

type Piece = Marked[number];

/** A quotation as Markdown, with its links, emphasis, code and formulas; each of its lines is a paragraph. */
export function quotation(quoted: Marked): string {
  const root: Root = { type: 'root', children: lines(quoted).map(paragraph) };
  return toMarkdown(root, { extensions: [mathToMarkdown()], emphasis: '*', bullet: '-', resourceLink: true }).trim();
}

function lines(pieces: Marked): Piece[][] {
  const made: Piece[][] = [[]];
  for (const piece of pieces) {
    piece.text.split('\n').forEach((text, n) => {
      if (n > 0) made.push([]);
      if (text) made.at(-1)!.push({ ...piece, text });
    });
  }
  return made.filter((line) => line.length > 0);
}

const paragraph = (line: readonly Piece[]): Paragraph => ({ type: 'paragraph', children: phrases(line, 0) });

/** Pieces beside each other that are the same at this depth are one. */
function phrases(pieces: readonly Piece[], depth: number): PhrasingContent[] {
  const made: PhrasingContent[] = [];
  for (let from = 0; from < pieces.length;) {
    const style = pieces[from]!.as?.[depth];
    let to = from + 1;
    while (to < pieces.length && isSame(pieces[to]!.as?.[depth], style)) to++;
    made.push(...styled(pieces.slice(from, to), style, depth));
    from = to;
  }
  return made;
}

const isSame = (a: InlineStyle | undefined, b: InlineStyle | undefined): boolean =>
  a?.type === b?.type && a?.value === b?.value;
const html = (value: string): Html => ({ type: 'html', value });

function styled(pieces: readonly Piece[], style: InlineStyle | undefined, depth: number): PhrasingContent[] {
  const value = pieces.map((piece) => piece.text).join('');
  const within = (): PhrasingContent[] => phrases(pieces, depth + 1);
  switch (style?.type) {
    case 'link':
      return [{ type: 'link', url: style.value, children: within() as Extract<PhrasingContent, { type: 'text' }>[] }];
    case 'strong':
      return [{ type: 'strong', children: within() }];
    case 'emphasis':
      return [{ type: 'emphasis', children: within() }];
    case 'code':
      return [{ type: 'inlineCode', value }];
    case 'super':
      return [html('<sup>'), ...within(), html('</sup>')];
    case 'sub':
      return [html('<sub>'), ...within(), html('</sub>')];
    case 'formula':
      return [{ type: 'inlineMath', value: style.value }];
    case 'picture':
    case undefined:
      return [{ type: 'text', value }];
  }
}
