import type { FastifyInstance, FastifyReply } from 'fastify';
import { sessionIsOpen, sessionOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { serving } from '../serve';
import { told, type Told } from './messages';
import type { EventRow } from './queries';
import { MOST_STREAMS } from './streams';

const MOST_MISSED = 500;
const HEARTBEAT = 25_000;
/** Bytes that wait for one reader; who is that far behind is let go, and catches up when it comes back. */
const MOST_WAITING = 1024 * 1024;

/**
 * `GET /api/events`: server-sent events for the signed-in person, taken up after `Last-Event-ID`, at first after
 * `?since=`: what happened between a page's first question and its stream is told, too. It ends with its session.
 */
export function eventRoutes(app: FastifyInstance, context: Context): void {
  const { events, db, streams } = context;
  const byEvent = new WeakMap<EventRow, Told>();
  const toldOf = (event: EventRow): Told => {
    const known = byEvent.get(event) ?? told(db, event);
    byEvent.set(event, known);
    return known;
  };

  serving(app, context).file('GET /api/events', ({ me: person, query, request, reply }) => {
    const session = sessionOf(request);
    const cursor = request.headers['last-event-id'] ?? query.since;
    if (streams.of(person.id) >= MOST_STREAMS) throw new AppError('too_many_streams', { limit: MOST_STREAMS });
    open(reply);
    const { raw } = reply;
    const write = (text: string): void => {
      if (raw.destroyed) return;
      raw.write(text);
      if (raw.writableLength > MOST_WAITING) raw.destroy();
    };
    const hear = (rows: readonly EventRow[]): void => {
      let text = '';
      for (const event of rows) {
        const message = toldOf(event)(person.id);
        if (message !== undefined) text += `id: ${events.cursor(event.seq)}\ndata: ${message}\n\n`;
      }
      if (text) write(text);
    };
    const sign = (event: string): void => write(`id: ${events.cursor()}\nevent: ${event}\ndata: {}\n\n`);
    if (typeof cursor === 'string' && cursor !== '') catchUp(context, cursor, hear, sign);
    sign('ready');
    const stop = events.subscribe({
      hear,
      restart: () => {
        sign('restart');
        raw.end();
      },
    });
    const leave = streams.add({ personId: person.id, session, end: () => raw.end() });
    const beat = setInterval(() => (sessionIsOpen(context, session) ? write(':\n\n') : raw.end()), HEARTBEAT);
    raw.on('close', () => {
      stop();
      leave();
      clearInterval(beat);
    });
  });
}

function open(reply: FastifyReply): void {
  reply.hijack();
  reply.raw.writeHead(200, {
    'content-type': 'text/event-stream; charset=utf-8',
    'cache-control': 'no-store',
    'x-accel-buffering': 'no',
    connection: 'keep-alive',
  });
}

/** After a short break what was missed is sent; after a long one, or where the database is another by now, the page is told to ask for everything anew. */
function catchUp(
  { events }: Context,
  cursor: string,
  hear: (rows: readonly EventRow[]) => void,
  sign: (event: string) => void,
): void {
  const last = events.seqOf(cursor);
  if (last === undefined) return sign('restart');
  const missed = events.since(last, MOST_MISSED + 1);
  if (missed.length > MOST_MISSED) sign('reload');
  else hear(missed);
}
