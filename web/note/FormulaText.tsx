import Markdown, { type Options } from 'react-markdown';
import rehypeKatex from 'rehype-katex';
import remarkBreaks from 'remark-breaks';
import remarkMath from 'remark-math';
import 'katex/dist/katex.min.css';

/** Markdown with formulas in it. */
export default function FormulaText(props: Pick<Options, 'children' | 'components' | 'urlTransform'>) {
  return <Markdown remarkPlugins={[remarkMath, remarkBreaks]} rehypePlugins={[rehypeKatex]} {...props} />;
}
