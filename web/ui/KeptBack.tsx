import { useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { Kept } from './kept';

interface Props<Values extends FieldValues> {
  readonly form: UseFormReturn<Values>;
  readonly kept: Kept<Values>;
  /** How it begins anew, where that is more than as it began. */
  readonly onStart?: () => void;
}

/** Says that a form goes on where it was left. */
export function KeptBack<Values extends FieldValues>({ form, kept, onStart }: Props<Values>) {
  const [isBack, setBack] = useState(kept.begun !== undefined);
  if (!isBack) return null;
  const startAgain = (): void => {
    if (onStart) onStart();
    else form.reset();
    kept.drop();
    setBack(false);
  };
  return (
    <p role="note" className="text-[14px] text-soft">
      What you had written here, and not saved, is back.{' '}
      <button type="button" className="act" onClick={startAgain}>
        Start again
      </button>
    </p>
  );
}
