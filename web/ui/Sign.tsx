import type { CSSProperties } from 'react';
import type { Kind, Look } from '@avrelle/core/legend';

/** A kind's sign in its pigment. Its name must stand beside it, or in `title`. */
export function Sign({ kind, className = '' }: { kind: Pick<Kind, 'pigment' | 'sign'>; className?: string }) {
  return (
    <span
      aria-hidden="true"
      className={`inline-block text-center font-read font-semibold ${className}`}
      style={{ color: `var(--${kind.pigment}-line)` }}
    >
      {kind.sign}
    </span>
  );
}

/** Words as they look when marked with a kind. */
export function Marked({ look, children }: { look: Look; children: string }) {
  return (
    <span
      className={`line-${look.line} px-px`}
      style={{ '--wash': `var(--${look.pigment})`, '--line': `var(--${look.pigment}-line)` } as CSSProperties}
    >
      {children}
    </span>
  );
}
