import type { WebSocket } from '@fastify/websocket';
import type { FastifyInstance } from 'fastify';
import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import { ValidationError } from 'yup';
import { LIVE_CLOSED, type ClassId, type LiveTold } from '@avrelle/core/wire';
import { readLiveMessage } from '@avrelle/core/live';
import { roleIn } from '../access/access-queries';
import { sessionIsOpen, sessionOf } from '../accounts/session';
import type { Context } from '../context';
import { MOST_STREAMS } from '../events/streams';
import { serving } from '../serve';
import { liveFor, liveNowIn } from './queries';
import type { Guest, Line } from './room';

/** Messages of one connection in a second: a pointer that moves, and ink; or somebody who reads. */
const OF_TEACHER = new RateLimiterMemory({ points: 120, duration: 1 });
const OF_STUDENT = new RateLimiterMemory({ points: 15, duration: 1 });
/** Who sends so many times as many is no page of ours. */
const TOO_MANY = 4;

/** RFC 6455, 7.4.1: something unexpected. */
const BROKEN = 1011;

/** What is shown to a class live. */
export function liveRoutes(app: FastifyInstance, context: Context): void {
  const { db, live, streams } = context;
  const serve = serving(app, context);

  serve('GET /api/live', ({ me }) => liveFor(db, me.id));
  serve('PUT /api/classes/:id/live', ({ me, params: { id }, body }) => {
    live.start(id, me, body);
    return liveNowIn(db, id)!;
  });
  serve('DELETE /api/classes/:id/live', ({ params: { id } }) => live.end(id));
  serve.socket(
    'GET /api/classes/:id/live',
    ({ params: { id } }) => liveNowIn(db, id),
    ({ me, params: { id }, request }, socket) => {
      // Between the question and the answer somebody may have been removed.
      const role = roleIn(db, id, me.id);
      if (role === undefined) return socket.close(LIVE_CLOSED.notMember);
      if (streams.of(me.id) >= MOST_STREAMS) return socket.close(LIVE_CLOSED.tooMany);
      hold(context, socket, { classId: id, guest: { id: me.id, name: me.name, role }, session: sessionOf(request) });
    },
  );
}

interface Held {
  readonly classId: ClassId;
  readonly guest: Guest;
  readonly session: string;
}

/** Brings somebody into the room of a class for as long as the connection and their session stand. */
function hold(context: Context, socket: WebSocket, { classId, guest, session }: Held): void {
  const line = lineOf(socket, () => sessionIsOpen(context, session));
  const { room, leave } = context.live.join(classId, guest, line);
  const forget = context.streams.add({
    personId: guest.id,
    session,
    end: () => socket.close(LIVE_CLOSED.signedOut),
  });
  const hear = (text: string): void => {
    try {
      room.hear(guest, line, readLiveMessage(text));
    } catch (error) {
      if (error instanceof ValidationError)
        return line.send(JSON.stringify({ type: 'refused', words: error.message } satisfies LiveTold));
      // Nothing of it has happened: who said it comes again, and says it again.
      console.error('live:', error);
      line.close(BROKEN);
    }
  };
  const limiter = guest.role === 'student' ? OF_STUDENT : OF_TEACHER;
  const key = context.newId();
  socket.on('message', (data: Buffer) => {
    limiter.consume(key).then(
      () => hear(data.toString()),
      ({ consumedPoints }: RateLimiterRes) => {
        if (consumedPoints > TOO_MANY * limiter.points) socket.close(LIVE_CLOSED.tooFast);
      },
    );
  });
  socket.on('close', (code: number) => {
    forget();
    leave(code);
  });
}

function lineOf(socket: WebSocket, isSignedIn: () => boolean): Line {
  let answers = true;
  socket.on('pong', () => {
    answers = true;
  });
  return {
    get bufferedAmount() {
      return socket.bufferedAmount;
    },
    send: (text) => socket.send(text),
    close: (code) => socket.close(code),
    check: () => {
      if (!isSignedIn()) return socket.close(LIVE_CLOSED.signedOut);
      if (!answers) return socket.terminate();
      answers = false;
      socket.ping();
    },
  };
}
