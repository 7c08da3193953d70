import type { PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { insertSearch } from './queries';

/** What is worth finding again and again, for somebody who begins. */
const STARTING = [
  ['Begun, not finished', 'is:reading progress:1..96'],
  ['Under ten minutes', 'minutes<10 -is:finished'],
  ['Without a tag', '-has:tag'],
  ['Came this week', 'saved:last week'],
  ['Due this week', 'due:next 7 days'],
] as const;

export function addStartingSearches(db: Db, personId: PersonId, newId: () => string): void {
  for (const [name, query] of STARTING) insertSearch(db, personId, newId(), { name, query });
}
