import { useCallback, useEffect, useMemo, useState } from 'react';
import { isByFinger } from '../../../ui/by-finger';
import { useDocument } from '../../document/document-context';
import { useReader, useSession } from '../../session/reader-context';

/** Kept on this device: who has learnt it once is not told again. */
const STORED = 'avrelle.first-steps';

type Step = 'mark' | 'go on';

/** Which first step to show: how to mark on a page that has no marks, then what can be done with the first one; none to who knows. */
export function useFirstStep(): { readonly step: Step | undefined; done(): void } {
  const { source, threads, me } = useSession();
  const { layout } = useDocument();
  const writing = useReader((s) => s.draft !== undefined);
  const [known, setKnown] = useState(() => localStorage.getItem(STORED) !== null);
  const mine = useMemo(
    () => threads.filter(({ root }) => root.author.id === me.id && !root.deleted).length,
    [threads, me.id],
  );
  const done = useCallback((): void => {
    localStorage.setItem(STORED, 'done');
    setKnown(true);
  }, []);
  useEffect(() => {
    if (mine > 1) localStorage.setItem(STORED, 'done');
  }, [mine]);
  const older = source.versionNumber < source.newest;
  if (known || older || layout === 0 || writing || mine > 1) return { step: undefined, done };
  if (mine === 1) return { step: 'go on', done };
  return { step: threads.length === 0 ? 'mark' : undefined, done };
}

interface Props {
  readonly step: Step;
  onDone(): void;
}

/** In the margin of a page without marks. */
export function FirstSteps({ step, onDone }: Props) {
  return (
    <section aria-label="First steps" className="border-l-[3px] border-tide px-[13px] py-1 text-[14px] leading-[21px]">
      {step === 'mark' ? <HowToMark /> : <WhatNext />}
      <button className="act mt-1.5 text-[13px]" onClick={onDone}>
        Don’t show this again
      </button>
    </section>
  );
}

function HowToMark() {
  return (
    <>
      <h2 className="mb-1 text-[16px]">Nothing is marked here yet</h2>
      <ol className="list-decimal space-y-1 pl-[18px] text-soft">
        {isByFinger() ? (
          <>
            <li>Hold your finger on a word, then drag to select more.</li>
            <li>Touch a kind in the Legend at the bottom, Claim for example: the words are marked.</li>
            <li>Touch what you marked to write a note about it.</li>
          </>
        ) : (
          <>
            <li>
              Select words: drag over them, or press <kbd>]</kbd> for a sentence.
            </li>
            <li>
              To mark them, press <kbd>1</kbd> to <kbd>6</kbd>, or click a kind in the Legend at the bottom.
            </li>
            <li>To write a note instead, just type.</li>
          </>
        )}
      </ol>
    </>
  );
}

function WhatNext() {
  return (
    <>
      <h2 className="mb-1 text-[16px]">Your first mark</h2>
      <ul className="list-disc space-y-1 pl-[18px] text-soft">
        <li>{isByFinger() ? 'Touch' : 'Click'} it to write a note, make it another kind, or delete it.</li>
        <li>Choose who sees it, only you or a class, at the top right.</li>
        <li>Find it again from any page, by the search at the top.</li>
        {!isByFinger() && (
          <li>
            <kbd>?</kbd> lists everything you can do, with its keys.
          </li>
        )}
      </ul>
    </>
  );
}
