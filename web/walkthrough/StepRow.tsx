import { Link } from 'react-router';
import type { AnnotationId, ClassId, StepNote } from '@avrelle/core/wire';
import { useSortableRow } from '../ui/Sortable';
import { NoteLine } from './NoteLine';

interface Props {
  readonly classId: ClassId;
  readonly id: AnnotationId;
  readonly number: number;
  readonly words: string;
  /** Undefined where it was deleted, or is not for me. */
  readonly note: StepNote | undefined;
  onWords(words: string): void;
  onRemove(): void;
}

const ROW = 'grid grid-cols-[16px_26px_1fr] gap-x-2 border-b border-rule py-3';

/** One step: its note, what to say, and its place among the others. */
export function StepRow({ classId, id, number, words, note, onWords, onRemove }: Props) {
  const { ref, style, isDragging, grip } = useSortableRow(id);
  return (
    <li ref={ref} style={style} className={`${ROW} ${isDragging ? 'relative z-10 bg-wash' : 'bg-sheet'}`}>
      {grip(`step ${number}`)}
      <b className="text-right font-read text-[16px] text-soft">{number}</b>
      <div className="min-w-0">
        {note ? (
          <NoteLine note={note} />
        ) : (
          <p className="text-[14.5px] text-brick">The note of this step was deleted, or is not for you any more.</p>
        )}
        {note?.seen === 'unseen' && (
          <p className="mt-0.5 pl-[28px] text-[13px] text-brick">The class does not see this note.</p>
        )}
        <label className="mt-1.5 grid gap-0.5 pl-[28px] text-[13px] text-soft">
          To say
          <textarea
            dir="auto"
            rows={Math.min(8, Math.max(1, words.split('\n').length + Math.floor(words.length / 90)))}
            value={words}
            onChange={(event) => onWords(event.target.value)}
            aria-label={`To say at step ${number}`}
            className="field resize-none font-read [field-sizing:content] text-[15.5px] leading-[22px] text-ink"
          />
        </label>
        <p className="mt-1.5 flex items-baseline gap-x-5 pl-[28px] text-[13px] pointer-coarse:items-center">
          {note && (
            <Link
              className="act"
              to={`/source/${note.source.id}?at=${id}`}
              state={{ back: { to: location.pathname, words: 'Walkthrough' } }}
            >
              Open in the text
            </Link>
          )}
          {note?.seen === 'held' && (
            <Link className="act" to={`/classes/${classId}/held`}>
              Release it
            </Link>
          )}
          <button
            className="ml-auto text-soft hover:text-brick"
            aria-label={`Take out step ${number}`}
            onClick={onRemove}
          >
            Take out
          </button>
        </p>
      </div>
    </li>
  );
}
