import type { ReactNode } from 'react';

/** One line between running head and page. */
export function Strip({ children }: { children: ReactNode }) {
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-l-[3px] border-b-rule border-l-tide bg-paper px-6 py-1.5 text-[14px] max-[900px]:px-3"
    >
      {children}
    </div>
  );
}
