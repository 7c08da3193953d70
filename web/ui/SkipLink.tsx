import type { ReactNode } from 'react';

interface SkipLinkProps {
  /** The id of what it leads to. */
  readonly to: string;
  readonly children: ReactNode;
}

/** Seen while it has the focus: the way past what stands before, for those who go by keys. */
export function SkipLink({ to, children }: SkipLinkProps) {
  return (
    <button
      className="press fixed top-2 left-2 z-50 not-focus:sr-only"
      onClick={() => document.getElementById(to)?.focus()}
    >
      {children}
    </button>
  );
}
