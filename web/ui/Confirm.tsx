import { useState, type ReactNode } from 'react';
import { wordsOf } from '../data/api';
import { Alert } from './Alert';
import { DialogFrame } from './DialogFrame';

interface Props {
  readonly title: string;
  /** What happens, and what is lost. */
  readonly children: ReactNode;
  readonly action: string;
  readonly onClose: () => void;
  /** Closes it as well, once it is done. */
  readonly run: () => Promise<unknown>;
}

/** Asks before something that cannot simply be undone; stays, and says why, where it did not work. */
export function Confirm({ title, children, action, onClose, run }: Props) {
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState('');
  const confirm = (): void => {
    setBusy(true);
    run().catch((error: unknown) => {
      setBusy(false);
      setWrong(wordsOf(error));
    });
  };
  return (
    <DialogFrame title={title} onClose={onClose}>
      <div className="grid gap-3 text-[15px] text-soft">{children}</div>
      <div className="mt-3">
        <Alert>{wrong}</Alert>
      </div>
      <div className="mt-5 flex flex-wrap items-center gap-5">
        <button className="press" disabled={busy} onClick={confirm}>
          {action}
        </button>
        <button className="act" onClick={onClose}>
          Cancel
        </button>
      </div>
    </DialogFrame>
  );
}
