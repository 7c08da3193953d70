import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import type { LiveNow } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { useLiveNow } from '../data/walkthrough-queries';

const LEFT = 'avrelle.not-now';
const nameOf = ({ class: c, startedAt, by }: LiveNow): string => `${c.id} ${startedAt} ${by.id}`;
const read = (): readonly string[] => JSON.parse(sessionStorage.getItem(LEFT) ?? '[]') as string[];

const BAR = [
  'flex flex-wrap items-baseline gap-x-5 border-b border-rule bg-wash px-6 py-1.5 text-[14px]',
  'max-[900px]:px-3 pointer-coarse:items-center',
].join(' ');

/** Below the places: that something is shown to one of my classes now. */
export default function LiveBar() {
  const me = useMe();
  const { pathname } = useLocation();
  const shown = useLiveNow().data ?? [];
  const [left, setLeft] = useState(read);
  const told = shown.filter((one) => pathname !== `/classes/${one.class.id}/live` && !left.includes(nameOf(one)));
  const leave = (one: LiveNow): void => {
    const all = [...left, nameOf(one)].slice(-20);
    sessionStorage.setItem(LEFT, JSON.stringify(all));
    setLeft(all);
  };
  return (
    <div role="status" aria-label="Live">
      {told.map((one) => {
        const isMine = one.by.id === me.id;
        return (
          <p key={one.class.id} className={BAR}>
            <span>
              <b className="font-semibold">{isMine ? 'You show' : `${one.by.name} shows`}</b> something to{' '}
              {one.class.name} now.
            </span>
            <Link className="act" to={`/classes/${one.class.id}/live`}>
              {isMine ? 'Go back to it' : 'Follow'}
            </Link>
            {!isMine && (
              <button className="ml-auto text-soft hover:text-ink" onClick={() => leave(one)}>
                Not now
              </button>
            )}
          </p>
        );
      })}
    </div>
  );
}
