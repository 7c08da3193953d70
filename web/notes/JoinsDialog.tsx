import { useState } from 'react';
import type { StudyNote } from '@avrelle/core/wire';
import { useLegends } from '../data/queries';
import { DialogFrame } from '../ui/DialogFrame';
import { Sign } from '../ui/Sign';
import type { useNotePatch } from './use-note-saver';

interface Props {
  readonly note: StudyNote;
  onPatch: ReturnType<typeof useNotePatch>;
  onClose(): void;
}

type Choice = 'all' | 'kinds' | 'put';

/** What comes into the note of a source by itself. What stands there stays, whatever is chosen. */
export function JoinsDialog({ note, onPatch, onClose }: Props) {
  const kinds = useLegends().data?.mine.kinds ?? [];
  const [choice, setChoice] = useState(choiceOf(note));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(note.kinds));
  const save = async (): Promise<void> => {
    const body = { joins: choice === 'put' ? 'put' : 'all', kinds: choice === 'kinds' ? [...chosen] : [] } as const;
    if (await onPatch(body)) onClose();
  };
  const option = (value: Choice, words: string) => (
    <label className="flex items-baseline gap-2 py-1">
      <input type="radio" name="joins" checked={choice === value} onChange={() => setChoice(value)} />
      {words}
    </label>
  );
  return (
    <DialogFrame title="What comes in by itself" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <fieldset>
          <legend className="sr-only">What comes into this note by itself</legend>
          {option('all', 'Everything I mark in this source')}
          {option('kinds', 'Only some kinds of marks')}
          {choice === 'kinds' && (
            <ul className="mb-1 ml-6 grid grid-cols-2 gap-x-4">
              {kinds.map((kind) => (
                <li key={kind.code}>
                  <label className="flex items-baseline gap-2 py-0.5">
                    <input
                      type="checkbox"
                      checked={chosen.has(kind.code)}
                      onChange={() => setChosen(toggled(chosen, kind.code))}
                    />
                    <Sign kind={kind} /> {kind.name}
                  </label>
                </li>
              ))}
            </ul>
          )}
          {option('put', 'Only what I put there')}
        </fieldset>
        <p className="mt-2 text-[13px] text-soft">What stands in the note stays, whatever you choose.</p>
        <button className="press mt-4" disabled={choice === 'kinds' && chosen.size === 0}>
          Save
        </button>
      </form>
    </DialogFrame>
  );
}

function choiceOf({ joins, kinds }: StudyNote): Choice {
  if (joins === 'put') return 'put';
  return kinds.length > 0 ? 'kinds' : 'all';
}

function toggled(chosen: ReadonlySet<string>, code: string): ReadonlySet<string> {
  const next = new Set(chosen);
  if (!next.delete(code)) next.add(code);
  return next;
}
