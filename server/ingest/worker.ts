import { parentPort } from 'node:worker_threads';
import { AppError } from '../errors';
import { ingest } from './ingest';
import type { WorkerReply, WorkerRequest } from './thread-ingester';

const port = parentPort!;
const send = (reply: WorkerReply): void => port.postMessage(reply);

port.on('message', ({ id, input, policy }: WorkerRequest) => {
  ingest(input, policy, (step, share) => send({ id, type: 'progress', step, share })).then(
    (result) => send({ id, type: 'done', result }),
    (error: unknown) => send(error instanceof AppError ? { id, type: 'refused', code: error.code, values: error.values, field: error.extra.field } : { id, type: 'broken', message: String((error as Error)?.stack ?? error) }),
  );
});
