import { v7 } from 'uuid';
import type { SamplePerson } from '@avrelle/core/wire';
import type { Config } from './config';
import { Room } from './accounts/room';
import type { Clock } from './clock';
import type { Context } from './context';
import { openDatabase, type Db } from './db/database';
import { migrate } from './db/migrate';
import { EventLog } from './events/event-log';
import { Streams } from './events/streams';
import type { Ingester } from './ingest/ingester';
import { Rooms } from './live/rooms';
import { JobRunner } from './jobs/job-runner';

export interface World {
  readonly config: Config;
  readonly ingester: Ingester;
  readonly db?: Db;
  readonly now?: Clock;
  /** Between two pages of one site for a list, in milliseconds. */
  readonly sitePause?: number;
  /** Whom a demo lets anybody be; nobody where nothing is said. */
  readonly samples?: readonly SamplePerson[];
}

/** Opens and migrates the database and puts the ambient world together. Jobs start when `jobs.start()` is called. */
export function openContext({
  config,
  ingester,
  db = openDatabase(config.dataFile),
  now = () => new Date().toISOString(),
  sitePause,
  samples = [],
}: World): Context {
  migrate(db);
  const events = new EventLog(db, now);
  const newId = (): string => v7();
  const jobs = new JobRunner({
    db,
    now,
    newId,
    events,
    ingester,
    log: (message) => console.error(message),
    ...(sitePause === undefined ? {} : { sitePause }),
  });
  const room = new Room(db, config.roomOfOne, () => performance.now());
  const live = new Rooms(db, now, events);
  return { db, config, now, newId, events, streams: new Streams(), live, jobs, room, ingester, samples };
}
