import type { ReactNode } from 'react';
import { Dialog } from 'radix-ui';

interface Props {
  /** What pressing the button does. */
  readonly action: string;
  readonly busy?: boolean;
  /** What else can be done here. */
  readonly children?: ReactNode;
}

/** Below a form in a dialog: doing it, and leaving it. */
export const DialogFoot = ({ action, busy = false, children }: Props) => (
  <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
    <button className="press" disabled={busy}>
      {action}
    </button>
    <Dialog.Close className="text-soft">Cancel</Dialog.Close>
    {children}
  </div>
);
