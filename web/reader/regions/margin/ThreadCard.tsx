import { memo } from 'react';
import type { Thread } from '../../model/thread';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { NoteCard } from './NoteCard';
import { useQuestion } from './questions-context';

/** The note of a thread; while one scrolls it stays as it is. */
export const ThreadCard = memo(function ThreadCard({ thread }: { readonly thread: Thread }) {
  const { me } = useSession();
  const { noteActions } = useTools();
  const open = useReader((s) => s.expanded.has(thread.root.id));
  const chosen = useReader((s) => s.chosen?.has(thread.root.id));
  const question = useQuestion(thread.root.id);
  return <NoteCard thread={thread} me={me.id} open={open} chosen={chosen} actions={noteActions} question={question} />;
});
