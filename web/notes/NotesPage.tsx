import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { v7 } from 'uuid';
import { studyNoteQuery, useStudyNotes } from '../data/study-queries';
import { useWrite } from '../data/use-write';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { NoteList } from './NoteList';
import { StudyNotePage } from './StudyNotePage';

/** Study notes: those of one's own, those of sources, and the one that is open. */
export default function NotesPage() {
  const { id } = useParams();
  const notes = useStudyNotes();
  const begin = useBegin();
  return (
    <div className="grid min-h-0 grid-cols-[236px_1fr] max-[900px]:grid-cols-1">
      <NoteList notes={notes.data ?? []} open={id} onBegin={begin} className={id ? 'max-[900px]:hidden' : ''} />
      {id ? (
        <OpenNote key={id} id={id} />
      ) : (
        <main className="min-h-0 overflow-y-auto bg-sheet max-[900px]:order-first max-[900px]:overflow-visible">
          <State of={notes}>
            <Beginning isEmpty={notes.data?.length === 0} onBegin={begin} />
          </State>
        </main>
      )}
    </div>
  );
}

/** Makes a note and leads there. */
function useBegin(): () => void {
  const navigate = useNavigate();
  const { run } = useWrite('PUT /api/notes/:id', 'study');
  return () => {
    const id = v7();
    run(
      { params: { id }, body: { title: 'New note' } },
      () => void navigate(`/notes/${id}`, { state: { isNew: true } }),
    );
  };
}

const AT_FIRST =
  'Mark something in a source, and its note is here: it fills itself with what you mark. ' +
  'Or begin a note of your own, and put passages of many sources into it.';
const EXPLAINED =
  'Every source you mark has a note that fills itself. ' +
  'A note of your own takes passages of many sources, beside your words.';

function Beginning({ isEmpty, onBegin }: { isEmpty: boolean; onBegin: () => void }) {
  return (
    <div className="px-[30px] pb-6 pt-4 max-[900px]:px-4">
      <PageHeading>Notes</PageHeading>
      <p className="mt-2 max-w-[60ch] text-soft">{isEmpty ? AT_FIRST : EXPLAINED}</p>
      <button className="press mt-4" onClick={onBegin}>
        Begin a note
      </button>
    </div>
  );
}

function OpenNote({ id }: { id: string }) {
  const note = useQuery(studyNoteQuery(id));
  if (!note.data)
    return (
      <main className="bg-sheet">
        <State of={note} />
      </main>
    );
  return <StudyNotePage note={note.data} />;
}
