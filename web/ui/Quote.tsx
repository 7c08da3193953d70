import type { Annotation } from '@avrelle/core/wire';
import { MarkedText } from './MarkedText';

/** The words an annotation is about, as they stand in their source; its lines stay lines. */
export function Quote({
  of: { anchor, quoted },
  className = '',
}: {
  of: Pick<Annotation, 'anchor' | 'quoted'>;
  className?: string;
}) {
  return (
    <q dir="auto" className={`whitespace-pre-line font-read before:content-none after:content-none ${className}`}>
      {quoted ? <MarkedText pieces={quoted} /> : anchor?.quote.exact}
    </q>
  );
}
