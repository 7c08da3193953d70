import { useMemo } from 'react';
import katex from 'katex';
import 'katex/dist/katex.min.css';

/** A formula set by KaTeX; one with a fault in it is shown as it was written, the fault beside it. */
export function Formula({ tex, block }: { tex: string; block: boolean }) {
  const set = useMemo(
    () =>
      katex.renderToString(tex, { displayMode: block, throwOnError: false, output: 'htmlAndMathml', strict: 'ignore' }),
    [tex, block],
  );
  // KaTeX escapes what it is given; no commands that could make links or load anything are trusted.
  return <span dangerouslySetInnerHTML={{ __html: set }} />;
}
