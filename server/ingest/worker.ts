import { parentPort } from 'node:worker_threads';
import { compare, indexText } from '@avrelle/core/anchor';
import { AppError } from '../errors';
import { follow } from '../versions/follow';
import { readFeed } from './feed';
import { ingest } from './ingest';
import type { WorkerReply, WorkerRequest } from './thread-ingester';

const port = parentPort!;
const send = (reply: WorkerReply): void => port.postMessage(reply);

async function work(request: WorkerRequest): Promise<unknown> {
  switch (request.type) {
    case 'ingest': return ingest(request.input, request.policy, (step, share) => send({ id: request.id, type: 'progress', step, share }));
    case 'follow': return follow(request.asked);
    case 'ping': return undefined;
    case 'feed': return readFeed(request.address, request.policy);
    case 'compare': return compare(indexText(request.before), indexText(request.after));
  }
}

port.on('message', (request: WorkerRequest) => {
  const { id } = request;
  work(request).then(
    (result) => send({ id, type: 'done', result }),
    (error: unknown) => send(error instanceof AppError ? { id, type: 'refused', code: error.code, values: error.values, field: error.extra.field } : { id, type: 'broken', message: String((error as Error)?.stack ?? error) }),
  );
});
