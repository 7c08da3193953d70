import type { DeskNotice } from '../wire/find';
import type { Noticed } from '../wire/notification';

/** What somebody did, where it does not go by how many. */
const DID: Readonly<Record<Exclude<Noticed, 'released' | 'followed' | 'answered'>, string>> = {
  mention: 'mentioned you',
  link: 'linked to a note of yours',
  answer: 'answered you',
  thread: 'answered in your thread',
  hidden: 'hid what you wrote',
  reported: 'reported a note',
  let_in: 'let you in',
  set: 'set a reading',
  changed: 'changed what is set',
  shown: 'showed the answers',
};

/** Who did it and what, as the beginning of a line: the Desk and the mails say the same. */
export function noticeWords({ why, notes, actor }: Pick<DeskNotice, 'why' | 'notes' | 'actor'>): {
  readonly actor: string;
  readonly did: string;
} {
  switch (why) {
    case 'released':
      return { actor, did: `released ${notes === 1 ? '1 note' : `${notes} notes`}` };
    case 'followed':
      return { actor, did: notes === 1 ? 'added something new' : `added ${notes} new things` };
    case 'answered':
      return { actor: notes === 1 ? actor : `${notes} people`, did: 'answered your question' };
    default:
      return { actor, did: DID[why] };
  }
}

/**
 * What was written, and what that is about: the words it stands at, or, of what is followed, the source. Where nobody
 * wrote anything, the first is what it is about.
 */
export function noticeAbout({ why, reply, quote, sourceTitle }: DeskNotice): {
  readonly words: string;
  readonly about: string;
} {
  if (why === 'followed') return { words: reply || quote, about: sourceTitle };
  return { words: reply || sourceTitle, about: quote || sourceTitle };
}

/** Where it is looked at: in its text; what has to be settled, in the discussion of its class. */
export function noticePath({ why, class: c, sourceId, rootId }: DeskNotice): string {
  if (c && why === 'reported') return `/classes/${c.id}/discussion?only=reported&at=${rootId}`;
  if (c && sourceId === null) return `/classes/${c.id}`;
  return rootId === null ? `/source/${sourceId}` : `/source/${sourceId}?at=${rootId}`;
}
