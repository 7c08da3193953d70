import type { Clock } from './clock';
import type { Db } from './db/database';
import type { EventLog } from './events/event-log';

/** What is needed to write something and tell of it. */
export interface Writing {
  readonly db: Db;
  readonly now: Clock;
  readonly newId: () => string;
  readonly events: EventLog;
}
