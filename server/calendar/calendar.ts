import { createEvents, type EventAttributes } from 'ics';
import { wordsFor } from '@avrelle/core/class';
import { plainWords } from '@avrelle/core/markdown';
import type { Assignment } from '@avrelle/core/wire';

/** How long before it is due a calendar shows it, in minutes: it ends when it is due. */
const SHOWN = 30;

/** What is due, as a calendar by RFC 5545; addresses in it begin with `origin`. Throws what the library throws. */
export function calendarOf(due: readonly Assignment[], origin: string): string {
  const events = due.flatMap((set) => (set.myDueAt === null ? [] : eventOf(set, set.myDueAt, origin)));
  const { error, value } = createEvents(events, { calName: 'Avrelle', productId: '-//Avrelle//Due dates//EN' });
  if (error) throw error;
  return value ?? '';
}

function eventOf(set: Assignment, dueAt: string, origin: string): EventAttributes {
  const { class: c, source, instructions, expected, progress, version } = set;
  const asked = wordsFor(expected) || 'to be read';
  const address = progress ? `/classes/${c.id}/readings/${source.id}` : `/source/${source.id}`;
  return {
    uid: `${c.id}.${source.id}@avrelle`,
    sequence: version,
    title: `Due: ${source.title} (${c.name})`,
    description: [asked, plainWords(instructions)].filter(Boolean).join('\n\n'),
    url: `${origin}${address}`,
    start: Date.parse(dueAt) - SHOWN * 60_000,
    end: Date.parse(dueAt),
    startInputType: 'utc',
    startOutputType: 'utc',
    endInputType: 'utc',
    endOutputType: 'utc',
    busyStatus: 'FREE',
  };
}
