import { Link } from 'react-router';
import type { ClassId, ThreadRow } from '@avrelle/core/wire';
import { useDiscussing } from '../../data/discussion-queries';
import { Sign } from '../../ui/Sign';
import { count, shortName, when } from '../../ui/when';
import type { AskedThreads } from './asked';
import { Star } from './Star';

interface Props {
  readonly classId: ClassId;
  readonly threads: readonly ThreadRow[];
  readonly asked: AskedThreads;
}

/** Threads, each with its first words, how many answers it has, and what of it is unread. */
export function ThreadList({ classId, threads, asked }: Props) {
  const { star } = useDiscussing(classId);
  return (
    <ol>
      {threads.map((thread) => (
        <li
          key={thread.id}
          className={`grid grid-cols-[1fr_auto] border-b border-rule border-l-[3px] ${
            thread.unread > 0 ? 'border-l-brick' : 'border-l-transparent'
          } ${thread.id === asked.at ? 'bg-sheet' : ''}`}
        >
          <Row thread={thread} asked={asked} />
          <Star starred={thread.starred} about={thread.words || thread.quote} onChange={(on) => star(thread.id, on)} />
        </li>
      ))}
    </ol>
  );
}

function Row({ thread, asked }: { readonly thread: ThreadRow; readonly asked: AskedThreads }) {
  const { id, kind, author, words, quote, source, answers, unread, newestAt, deleted, endorsed, hidden, reported } =
    thread;
  const facts = [
    reported && 'reported',
    hidden && 'hidden',
    endorsed && 'recommended',
    answers > 0 && count(answers, 'answer'),
    unread > 0 && `${unread} unread`,
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <Link
      to={asked.addressOf(id)}
      replace
      aria-current={id === asked.at ? 'true' : undefined}
      className="block min-w-0 py-2.5 pl-[17px] hover:text-tide"
    >
      <span className="flex items-baseline gap-1.5 text-[13px] text-soft">
        <Sign kind={kind} className="w-[15px] text-[15px]" />
        <b className="font-semibold text-ink">{shortName(author.name)}</b>
        {deleted ? 'deleted this' : kind.name.toLowerCase()}
        <span className="ml-auto whitespace-nowrap text-faint">{when(newestAt)}</span>
      </span>
      {words && (
        <span dir="auto" className="line-clamp-2 text-[14.5px] leading-5">
          {words}
        </span>
      )}
      <span
        dir="auto"
        lang={source.language || undefined}
        className="line-clamp-1 font-read text-[14px] italic text-soft"
      >
        {quote || source.title}
      </span>
      <span className="flex gap-3 text-[13px] text-soft">
        <span className="truncate">{source.title}</span>
        {facts && <b className="ml-auto whitespace-nowrap font-semibold text-ink">{facts}</b>}
      </span>
    </Link>
  );
}
