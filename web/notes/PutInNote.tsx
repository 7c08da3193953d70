import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import type { AnnotationId, StudyNoteRow } from '@avrelle/core/wire';
import { useStudyNotes } from '../data/study-queries';
import { useWrite } from '../data/use-write';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';

/** How many notes are offered: those that were written last. */
const MOST = 12;

/** Puts marks into a note of one's own, each once. */
export function PutInNote({ annotationIds }: { annotationIds: readonly AnnotationId[] }) {
  const put = usePut(annotationIds);
  return (
    <Menu words="Put in a note">
      <Notes onChoose={put} />
    </Menu>
  );
}

type Choose = (note: Pick<StudyNoteRow, 'id' | 'title'>, isNew?: boolean) => void;

function Notes({ onChoose }: { onChoose: Choose }) {
  const own = useStudyNotes().data?.filter((note) => note.sourceId === null) ?? [];
  return (
    <>
      {own.slice(0, MOST).map((note) => (
        <DropdownMenu.Item key={note.id} className="item max-w-[300px]" onSelect={() => onChoose(note)}>
          <span dir="auto" className="line-clamp-2">
            {note.title}
          </span>
        </DropdownMenu.Item>
      ))}
      {own.length > 0 && <DropdownMenu.Separator className="my-1 border-t border-rule" />}
      <DropdownMenu.Item className="item" onSelect={() => onChoose({ id: v7(), title: 'New note' }, true)}>
        A new note
      </DropdownMenu.Item>
    </>
  );
}

function usePut(annotationIds: readonly AnnotationId[]): Choose {
  const navigate = useNavigate();
  const messages = useMessages();
  const begin = useWrite('PUT /api/notes/:id');
  const put = useWrite('POST /api/notes/:id/excerpts', 'study');
  return ({ id, title }, isNew = false) => {
    const open = { label: 'Open the note', run: () => void navigate(`/notes/${id}`, { state: { isNew } }) };
    const send = (): void =>
      put.run({ params: { id }, body: { annotationIds: [...annotationIds] } }, ({ put: came }) =>
        messages.tell(
          came.length === 0 ? `It stands in “${title}” already.` : `${count(came.length, 'mark')} put into “${title}”.`,
          open,
        ),
      );
    if (isNew) begin.run({ params: { id }, body: { title } }, send);
    else send();
  };
}
