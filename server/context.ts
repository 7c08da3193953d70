import type { Room } from './accounts/room';
import type { Config } from './config';
import type { Db } from './db/database';
import type { EventLog } from './events/event-log';
import type { Streams } from './events/streams';
import type { Ingester } from './ingest/ingester';
import type { JobRunner } from './jobs/job-runner';

/** The clock, so that tests and the demo can set it. Returns an RFC 3339 date-time in UTC. */
export type Clock = () => string;

/** The ambient world of every route. */
export interface Context {
  readonly db: Db;
  readonly config: Config;
  readonly now: Clock;
  readonly newId: () => string;
  readonly events: EventLog;
  readonly streams: Streams;
  readonly jobs: JobRunner;
  /** How much each person may keep. */
  readonly room: Room;
  /** Heavy computation, out of the way of everybody's requests. */
  readonly ingester: Ingester;
}
