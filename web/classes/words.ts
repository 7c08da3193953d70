import { wordsFor } from '@avrelle/core/class';
import type { Assignment, OthersSeen } from '@avrelle/core/wire';

export const SEEN_WORDS: Readonly<Record<OthersSeen, string>> = {
  at_once: 'at once',
  after_own: 'after their own',
  after_due: 'after it is due',
  after_release: 'when you show them',
};

/** The same, where it is told beside a reading. */
const SEEN_BESIDE: Readonly<Record<OthersSeen, string>> = {
  at_once: '',
  after_own: 'others are seen after one’s own',
  after_due: 'others are seen after it is due',
  after_release: 'others are seen when a teacher shows them',
};

/** What a reading asks for and how it goes, in one line. */
export const aboutSet = ({ expected, othersSeen, shownAt, comments, groups, inOrder, together }: Assignment): string =>
  [
    groups.length > 0 ? `for ${groups.map(({ name }) => name).join(', ')}` : '',
    wordsFor(expected) || 'to be read',
    shownAt ? 'everybody sees everybody’s' : SEEN_BESIDE[othersSeen],
    comments ? '' : 'nothing is written for the class now',
    inOrder ? 'heard in order' : '',
    together.length > 0 ? `read together with ${namesOf(together)}` : '',
  ]
    .filter(Boolean)
    .join(' · ');

/** "Field Course A and Field Course C" */
export const namesOf = (classes: Assignment['together']): string =>
  new Intl.ListFormat('en').format(classes.map(({ name }) => name));

/** Whether the time when something is due is over; never where it is never due. */
export const isPast = (dueAt: string | null, now = new Date().toISOString()): boolean => dueAt !== null && dueAt <= now;
