import { kindOf, type KindCode } from '@avrelle/core/key';

/** A kind's sign in its pigment. Its name must stand beside it, or in `title`. */
export function Sign({ kind, className = '' }: { kind: KindCode; className?: string }) {
  const { sign, pigment } = kindOf(kind);
  return <span aria-hidden="true" className={`inline-block text-center font-read font-semibold ${className}`} style={{ color: `var(--${pigment}-line)` }}>{sign}</span>;
}
