import type { MessagePort } from 'node:worker_threads';
import { compare, indexText } from '@avrelle/core/anchor';
import { readBlob } from '../db/blobs';
import { storeFile, storeIngested } from '../db/slow-store';
import { openDatabase, type Db } from '../db/database';
import { AppError } from '../errors';
import { follow } from '../versions/follow';
import { parseFeedOrPage } from './feed';
import type { IngestInput } from './ingested';
import { ingest, wantedParts } from './ingest';
import type { Ask } from './ingester';
import type { Outcome, Step, Task } from './pool-ingester';
import { resolveInput } from './stored-input';

const open = new Map<string, Db>();
/** A connection of this thread's own: large files never pass through the one that answers everybody. */
function database(file: string): Db {
  const known = open.get(file) ?? openDatabase(file);
  open.set(file, known);
  return known;
}

/** Only what belongs together passes between the threads; files are read here. */
function inputOf({ ask, got }: Extract<Task, { ask: Ask }>, db: Db): IngestInput {
  return ask.type === 'address' ? { ...ask, got } : resolveInput(ask, (hash) => readBlob(db, hash)!.bytes);
}

async function work(task: Task, tell: (step: string, share: number) => void): Promise<unknown> {
  switch (task.type) {
    case 'ingest': {
      const db = database(task.dataFile);
      const input = inputOf(task, db);
      const whole = input.type === 'shape' ? input : { ...input, parts: task.parts };
      return storeIngested(db, await ingest(whole, task.policy, tell));
    }
    case 'wanted': {
      const input = inputOf(task, database(task.dataFile));
      return input.type === 'shape' ? [] : wantedParts(input, task.known);
    }
    case 'follow':
      return follow(task.asked);
    case 'feed':
      return parseFeedOrPage(task);
    case 'compare':
      return compare(indexText(task.before), indexText(task.after));
    case 'store':
      return storeFile(database(task.dataFile), task.file, task.mediaType);
  }
}

/** What the pool calls, once at a time. */
export default async function run({
  task,
  port,
}: {
  readonly task: Task;
  readonly port: MessagePort;
}): Promise<Outcome> {
  const tell = (step: string, share: number): void => port.postMessage({ step, share } satisfies Step);
  tell('', 0);
  try {
    return { type: 'done', result: await work(task, tell) };
  } catch (error) {
    if (error instanceof AppError)
      return { type: 'refused', code: error.code, values: error.values, field: error.extra.field };
    throw error;
  } finally {
    port.close();
  }
}
