import { Suspense, type ReactNode } from 'react';
import type { Marked } from '@avrelle/core/query';
import type { InlineStyle } from '@avrelle/core/text';
import { lazily } from './lazily';

type Piece = Marked[number];

/** Formulas are set by a library of their own, loaded for quotations that have some. */
const Formula = lazily(async () => ({ default: (await import('../note/Formula')).Formula }));

/** Words with those that were looked for marked, and as they stand in their source: emphasis, code, formulas. */
export const MarkedText = ({ pieces }: { pieces: Marked }) => (
  <>
    {pieces.map((piece, n) => (
      <MarkedPiece key={n} piece={piece} before={pieces[n - 1]} />
    ))}
  </>
);

function MarkedPiece({ piece, before }: { piece: Piece; before: Piece | undefined }) {
  const formula = formulaOf(piece);
  // A formula is one, however many pieces its signs fall into.
  if (formula && before && formulaOf(before)?.value === formula.value) return null;
  const words = piece.hit ? <mark className="bg-wash px-px font-semibold text-tide">{piece.text}</mark> : piece.text;
  const shown = formula ? (
    <Suspense fallback={words}>
      <Formula tex={formula.value} block={false} />
    </Suspense>
  ) : (
    words
  );
  return <>{(piece.as ?? []).reduceRight<ReactNode>(within, shown)}</>;
}

const formulaOf = ({ as }: Piece): InlineStyle | undefined => as?.find((style) => style.type === 'formula');

function within(words: ReactNode, { type, value }: InlineStyle): ReactNode {
  switch (type) {
    case 'link':
      return (
        <span title={value} className="underline decoration-strong underline-offset-2">
          {words}
        </span>
      );
    case 'strong':
      return <strong className="font-semibold">{words}</strong>;
    case 'emphasis':
      return <em className="[.italic_&]:not-italic">{words}</em>;
    case 'code':
      return <code className="font-mono text-[0.88em] not-italic">{words}</code>;
    case 'super':
      return <sup className="text-[0.75em]">{words}</sup>;
    case 'sub':
      return <sub className="text-[0.75em]">{words}</sub>;
    case 'picture':
      return <span className="text-faint">{words}</span>;
    case 'formula':
      return words;
  }
}
