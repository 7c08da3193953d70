import { NavLink } from 'react-router';
import type { StudyNoteRow } from '@avrelle/core/wire';

interface Props {
  readonly notes: readonly StudyNoteRow[];
  /** The id of the one that is open. */
  readonly open: string | undefined;
  onBegin(): void;
  readonly className?: string;
}

const LIST =
  'min-h-0 overflow-y-auto border-r border-rule py-[18px] pl-6 text-[14.5px] ' +
  'max-[900px]:border-r-0 max-[900px]:px-4';
const ROW = 'flex items-baseline gap-2 border-r-[3px] py-[4px] pr-4 text-start leading-[20px] hover:text-tide';

/** All notes, those of one's own first. */
export function NoteList({ notes, open, onBegin, className = '' }: Props) {
  const own = notes.filter((note) => note.sourceId === null);
  const ofSources = notes.filter((note) => note.sourceId !== null);
  return (
    <nav aria-label="Notes" className={`${LIST} ${className}`}>
      <Group name="My notes">
        {own.length === 0 && <p className="pr-4 text-[13px] text-soft">None yet.</p>}
        {own.map((note) => (
          <Row key={note.id} note={note} isOpen={note.id === open} />
        ))}
        <li>
          <button className="act mt-1 text-[14px]" onClick={onBegin}>
            Begin a note
          </button>
        </li>
      </Group>
      {ofSources.length > 0 && (
        <Group name="Of one source each">
          {ofSources.map((note) => (
            <Row key={note.id} note={note} isOpen={note.id === open} />
          ))}
        </Group>
      )}
    </nav>
  );
}

function Group({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <section className="mb-5">
      <h2 className="mb-1.5 font-ui text-[13px] font-semibold text-soft">{name}</h2>
      <ul>{children}</ul>
    </section>
  );
}

function Row({ note, isOpen }: { note: StudyNoteRow; isOpen: boolean }) {
  return (
    <li>
      <NavLink
        to={`/notes/${note.id}`}
        className={`${ROW} ${isOpen ? 'border-tide font-semibold' : 'border-transparent'}`}
      >
        <span dir="auto" className="line-clamp-2 min-w-0 flex-1">
          {note.title || 'Without a name'}
        </span>
        {note.excerpts > 0 && (
          <span className="text-[12px] font-normal text-faint">
            {note.excerpts}
            <span className="sr-only"> {note.excerpts === 1 ? 'excerpt' : 'excerpts'}</span>
          </span>
        )}
      </NavLink>
    </li>
  );
}
