import { useRef, useState } from 'react';
import { LEFT_OUT, readExcerpt, withPassage } from '@avrelle/core/study';
import { DialogFrame } from '../ui/DialogFrame';

interface Props {
  readonly markdown: string;
  onSave(markdown: string): void;
  onClose(): void;
}

/** Leaves words out of an excerpt. Nothing else of it can be changed: what stands there was said so. */
export function ShortenDialog({ markdown, onSave, onClose }: Props) {
  const whole = readExcerpt(markdown)?.passage ?? '';
  const [passage, setPassage] = useState(whole);
  const [nothing, setNothing] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  const leaveOut = (): void => {
    const { selectionStart: from = 0, selectionEnd: to = 0 } = field.current ?? {};
    setNothing(from === to);
    if (from !== to) setPassage(without(passage, from, to));
    field.current?.focus();
  };
  return (
    <DialogFrame title="Shorten the excerpt" width={520} onClose={onClose}>
      <p className="mb-2 text-[14px] text-soft">
        Select the words you do not need, then leave them out: {LEFT_OUT} stands in their place.
      </p>
      <textarea
        ref={field}
        readOnly
        autoFocus
        dir="auto"
        aria-label="Words of the excerpt"
        rows={6}
        value={passage}
        className="w-full border border-strong bg-paper p-2 font-read text-[16px] leading-[24px]"
      />
      <p role="status" className="min-h-[20px] text-[13px] text-brick">
        {nothing && 'Select some words first.'}
      </p>
      <div className="mt-2 flex flex-wrap items-baseline gap-5">
        <button type="button" className="act" onClick={leaveOut}>
          Leave these out
        </button>
        <button type="button" className="text-soft" disabled={passage === whole} onClick={() => setPassage(whole)}>
          Start again
        </button>
        <button
          type="button"
          className="press ml-auto"
          disabled={passage === whole}
          onClick={() => onSave(withPassage(markdown, passage))}
        >
          Save
        </button>
      </div>
    </DialogFrame>
  );
}

/** Blanks stand around what was left out, never twice; two that meet are one. */
function without(passage: string, from: number, to: number): string {
  const mark = LEFT_OUT.replace(/[[\]]/g, '\\$&');
  const left = `${passage.slice(0, from).trimEnd()} ${mark} ${passage.slice(to).trimStart()}`.trim();
  return left.replaceAll(`${mark} ${mark}`, mark);
}
