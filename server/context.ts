import type { SamplePerson } from '@avrelle/core/wire';
import type { Room } from './accounts/room';
import type { Config } from './config';
import type { Streams } from './events/streams';
import type { Ingester } from './ingest/ingester';
import type { JobRunner } from './jobs/job-runner';
import type { Rooms } from './live/rooms';
import type { Writing } from './writing';

/** The ambient world of every route. */
export interface Context extends Writing {
  readonly config: Config;
  readonly streams: Streams;
  /** Where something is shown to a class. */
  readonly live: Rooms;
  readonly jobs: JobRunner;
  /** How much each person may keep. */
  readonly room: Room;
  /** Heavy computation, out of the way of everybody's requests. */
  readonly ingester: Ingester;
  /** Whom a demo lets anybody be. */
  readonly samples: readonly SamplePerson[];
}
