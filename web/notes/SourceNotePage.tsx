import { useQuery } from '@tanstack/react-query';
import { Navigate, useParams } from 'react-router';
import { sourceNoteQuery } from '../data/study-queries';
import { State } from '../ui/State';

/** Leads to the note of a source. */
export default function SourceNotePage() {
  const { id = '' } = useParams();
  const note = useQuery(sourceNoteQuery(id));
  if (note.data) return <Navigate replace to={`/notes/${note.data.id}`} />;
  return (
    <main>
      <State of={note} />
    </main>
  );
}
