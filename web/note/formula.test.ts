import { expect, test } from '@jest/globals';
import katex from 'katex';

/** What a screen reader is given: MathML (W3C MathML 3) with the formula as it was written beside it. */
const mathml = (tex: string): string => katex.renderToString(tex, { throwOnError: false, output: 'mathml' });

// The examples of the KaTeX documentation ("Usage", "Supported Functions": accents, fractions, roots, sums, matrices).
test.each([
  ['c = \\pm\\sqrt{a^2 + b^2}', ['<msqrt>', '<msup>', '±']],
  ['\\frac{a}{b}', ['<mfrac>']],
  ['\\sum_{i=1}^n', ['∑', '<msubsup>']],
  ['\\begin{matrix} a & b \\\\ c & d \\end{matrix}', ['<mtable', '<mtr>']],
  ['\\vec{F}', ['<mover']],
])('%s is set, and readable without its picture', (tex, parts) => {
  const set = mathml(tex);
  for (const part of parts) expect(set).toContain(part);
  expect(set).toContain('application/x-tex');
  expect(set).not.toContain('katex-error');
});

test('a formula with a fault is shown as written, the fault beside it; commands that lead outside are not trusted', () => {
  expect(mathml('\\frac{a')).toMatch(/katex-error.*title="ParseError[^"]*".*\\frac\{a/s);
  expect(mathml('\\href{javascript:alert(1)}{x}')).not.toContain('href="javascript');
});
