import { Link } from 'react-router';
import { noticeAbout, noticePath, noticeWords } from '@avrelle/core/notification';
import type { Desk, DeskNotice } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { Tint } from '../ui/Tint';
import { count, shortName, when } from '../ui/when';

const BACK = { back: { to: '/desk', words: 'Desk' } };

/** What others did that concerns me, the newest first. */
export function NewForYou({ desk: { notices, unseen, asking }, name }: { desk: Desk; name: string }) {
  const seen = useWrite('POST /api/desk/seen', 'desk');
  return (
    <section
      aria-label="New for you"
      className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-6 py-4 max-[900px]:border-l-0 max-[900px]:border-t max-[900px]:px-4"
    >
      <div className="flex items-baseline gap-4">
        <h2 className="mr-auto text-[17px]">New for you</h2>
        {unseen > 0 && (
          <button className="act text-[13px]" onClick={() => seen.run(undefined)}>
            All seen
          </button>
        )}
        <Link to="/notifications" className="act text-[13px]">
          Settings<span className="sr-only"> of what you are told</span>
        </Link>
      </div>
      {notices.length + asking.length === 0 && (
        <p className="mt-1 text-soft">
          When somebody answers you, mentions you or shows you something new, {shortName(name).split(' ')[0]}, it stands
          here.
        </p>
      )}
      <ul className="mt-2">
        {asking.map(({ class: c, people }) => (
          <li key={c.id} className="border-t border-strong border-l-[3px] border-l-brick py-2 pl-3">
            <Link to={`/classes/${c.id}/joining`} className="block text-[14.5px] hover:text-tide">
              {count(people, 'person asks', 'people ask')} to join <Tint tint={c.tint}>{c.name}</Tint>
            </Link>
          </li>
        ))}
        {notices.map((notice) => (
          <Notice key={notice.id} of={notice} />
        ))}
      </ul>
    </section>
  );
}

function Notice({ of: n }: { readonly of: DeskNotice }) {
  const { words, about } = noticeAbout(n);
  const { actor, did } = noticeWords({ ...n, actor: shortName(n.actor) });
  return (
    <li className={`border-t py-2 ${n.seen ? 'border-rule' : 'border-strong border-l-[3px] border-l-brick pl-3'}`}>
      <Link to={noticePath(n)} state={BACK} className="block hover:text-tide">
        <p className="flex text-[13px] text-soft">
          <span>
            <b className="font-semibold text-ink">{actor}</b> {did}
          </span>
          <span className="ml-auto text-faint">{when(n.at)}</span>
        </p>
        <p dir="auto" className="line-clamp-4 whitespace-pre-line text-[14.5px] leading-5">
          {words}
        </p>
        {n.class && n.why !== 'reported' ? (
          <p className="mt-0.5 text-[13px]">
            <Tint tint={n.class.tint}>{n.class.name}</Tint>
          </p>
        ) : (
          <p dir="auto" className="mt-0.5 truncate font-read text-[13.5px] italic text-soft">
            {about}
          </p>
        )}
      </Link>
    </li>
  );
}
