import type { ReactNode } from 'react';
import { wordsOf } from '../data/api';

/** What to show while something is on its way, or did not come. */
export function State({ of, children }: { of: { isPending: boolean; error: unknown }; children?: ReactNode }) {
  if (of.error)
    return (
      <div className="p-8">
        <p role="alert" className="border-l-[3px] border-brick pl-3 text-brick">
          {wordsOf(of.error)}
        </p>
      </div>
    );
  if (of.isPending)
    return (
      <p role="status" className="p-8 text-faint">
        Loading…
      </p>
    );
  return children;
}
