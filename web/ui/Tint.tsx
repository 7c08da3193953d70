import type { ReactNode } from 'react';

const TINT: Readonly<Record<string, { line: string; wash: string }>> = {
  tide: { line: 'var(--tide)', wash: 'var(--tide-wash)' },
  moss: { line: 'var(--moss)', wash: 'var(--moss-wash)' },
  heather: { line: 'var(--heather)', wash: 'var(--heather-wash)' },
  clay: { line: 'var(--clay)', wash: 'var(--clay-wash)' },
  none: { line: 'var(--rule-strong)', wash: 'transparent' },
};

export const tintStyle = (tint: string | undefined) => {
  const { line, wash } = TINT[tint ?? 'none'] ?? TINT.none!;
  return { background: wash, borderLeft: `3px solid ${line}`, color: tint ? line : 'var(--ink)' };
};

/** The line of a tint alone. */
export const lineOf = (tint: string): string => (TINT[tint] ?? TINT.none!).line;

/** An audience in its class's own tint; without one, nobody else is meant. */
export function Tint({
  tint,
  children,
  className = '',
}: {
  tint?: string | undefined;
  children: ReactNode;
  className?: string;
}) {
  return (
    <span className={`px-2 py-0.5 font-semibold ${className}`} style={tintStyle(tint)}>
      {children}
    </span>
  );
}
