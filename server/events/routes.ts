import type { FastifyInstance, FastifyReply } from 'fastify';
import type { StreamEvent } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import { annotationFor } from '../annotations/queries';
import { isMember } from '../classes/queries';
import type { Context } from '../context';
import { jobOf } from '../jobs/queries';
import { canRead } from '../sources/queries';
import type { EventRow } from './queries';

const MOST_MISSED = 500;
const HEARTBEAT = 25_000;

/** `GET /api/events`: server-sent events for the signed-in person, taken up after `Last-Event-ID`, at first after `?since=`: what happened between a page's first question and its stream is told, too. */
export function eventRoutes(app: FastifyInstance, context: Context): void {
  app.get('/api/events', (request, reply) => {
    const person = personOf(request);
    const last = Number(request.headers['last-event-id'] ?? (request.query as { since?: string }).since ?? Number.NaN);
    open(reply);
    const send = (events: readonly EventRow[]): void => {
      for (const event of events) {
        const message = messageFor(context, person.id, event);
        if (message) reply.raw.write(`id: ${event.seq}\ndata: ${JSON.stringify(message)}\n\n`);
      }
    };
    if (Number.isInteger(last)) catchUp(context, last, send, reply);
    reply.raw.write(`id: ${context.events.newest()}\nevent: ready\ndata: {}\n\n`);
    const stop = context.events.subscribe(send);
    const beat = setInterval(() => reply.raw.write(':\n\n'), HEARTBEAT);
    request.raw.on('close', () => {
      stop();
      clearInterval(beat);
    });
  });
}

function open(reply: FastifyReply): void {
  reply.hijack();
  reply.raw.writeHead(200, { 'content-type': 'text/event-stream; charset=utf-8', 'cache-control': 'no-store', 'x-accel-buffering': 'no', connection: 'keep-alive' });
}

/** After a short break what was missed is sent; after a long one the page is told to ask for everything anew. */
function catchUp(context: Context, last: number, send: (events: readonly EventRow[]) => void, reply: FastifyReply): void {
  const missed = context.events.since(last, MOST_MISSED + 1);
  if (missed.length > MOST_MISSED) reply.raw.write(`id: ${context.events.newest()}\nevent: reload\ndata: {}\n\n`);
  else send(missed);
}

/** What one person is told of one event; undefined when it is not for them. */
function messageFor(context: Context, personId: string, event: EventRow): StreamEvent | undefined {
  switch (event.type) {
    case 'annotation': return annotationMessage(context, personId, event);
    case 'source': return canRead(context.db, personId, event.source_id!) ? { type: 'source', sourceId: event.source_id! } : undefined;
    case 'classes': return isMember(context.db, event.class_id!, personId) || event.person_id === personId ? { type: 'classes' } : undefined;
    case 'key': return event.person_id === personId || (event.class_id !== null && isMember(context.db, event.class_id, personId)) ? { type: 'key' } : undefined;
    case 'library': return event.person_id === personId || (event.class_id !== null && isMember(context.db, event.class_id, personId)) ? { type: 'library' } : undefined;
    case 'arrivals':
    case 'desk': return event.person_id === personId ? { type: event.type } : undefined;
    case 'job': {
      const job = event.person_id === personId ? jobOf(context.db, personId, event.job_id!) : undefined;
      return job && { type: 'job', job };
    }
  }
}

function annotationMessage({ db }: Context, personId: string, event: EventRow): StreamEvent | undefined {
  const annotation = annotationFor(db, personId, event.annotation_id!);
  if (annotation) return { type: 'annotation', annotation };
  const former = event.former_classes ? (JSON.parse(event.former_classes) as string[]) : [];
  const knewIt = event.person_id === personId || former.some((id) => isMember(db, id, personId));
  return knewIt ? { type: 'gone', annotationId: event.annotation_id!, sourceId: event.source_id! } : undefined;
}
