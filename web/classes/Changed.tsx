import { Fragment } from 'react';
import { Link } from 'react-router';
import type { Assignment, Published } from '@avrelle/core/wire';
import { count, day } from '../ui/when';

/** Whether anything is not as it was when it was published. */
export const isChanged = ({ changed: { instructions, asked, text, notes } }: Published): boolean =>
  instructions || asked || text || notes > 0;

/** What of a reading that is set is not as it was when it was published; nothing where all of it is. */
export function Changed({ set: { published, source } }: { readonly set: Assignment }) {
  if (!isChanged(published)) return null;
  const { instructions, asked, text, notes } = published.changed;
  const parts = [
    instructions && 'the instructions',
    asked && 'what is asked for',
    text && (
      <Link className="act" to={`/source/${source.id}/changes`}>
        the text
      </Link>
    ),
    notes > 0 && `${count(notes, 'note')} by teachers`,
  ].filter(Boolean);
  return (
    <span>
      <b className="font-semibold text-brick">Changed</b> since {day(published.at)}:{' '}
      {parts.map((part, n) => (
        <Fragment key={n}>
          {n > 0 && ', '}
          {part}
        </Fragment>
      ))}
    </span>
  );
}
