import Markdown, { type Options } from 'react-markdown';
import rehypeKatex from 'rehype-katex';
import remarkBreaks from 'remark-breaks';
import remarkMath from 'remark-math';
import type { Root } from 'mdast';
import { pricesAsWords } from '@avrelle/core/markdown';
import 'katex/dist/katex.min.css';

const remarkPrices =
  () =>
  (tree: Root, file: { toString(): string }): void =>
    void pricesAsWords(tree, String(file));

/** Markdown with formulas in it. */
export default function FormulaText(props: Pick<Options, 'children' | 'components' | 'urlTransform'>) {
  return <Markdown remarkPlugins={[remarkMath, remarkPrices, remarkBreaks]} rehypePlugins={[rehypeKatex]} {...props} />;
}
