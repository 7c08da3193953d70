import { useEffect, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { useMe } from '../account/me';
import { ProblemError } from '../data/api';
import { call } from '../data/call';
import { renew } from '../data/stale';
import { AnswerSender, type Outcome, type Waiting } from './answer-sender';

type Unkeyed = Waiting extends infer W ? (W extends Waiting ? Omit<W, 'key'> : never) : never;

interface Answers {
  /** Stores it, or keeps it on this computer until it can be stored. */
  send(waiting: Unkeyed): void;
  /** How many are kept here for want of a connection. */
  readonly waiting: number;
}

const AGAIN = 4_000;
/** The card is gone, or was answered elsewhere; whatever else is wrong may be well again later. */
const NO_LONGER: readonly number[] = [400, 404, 409];

/** Answers of this person on their way to the server; those of former visits, too. */
export function useAnswers(): Answers {
  const me = useMe();
  const client = useQueryClient();
  const [waiting, setWaiting] = useState(0);
  const sender = useRef<AnswerSender>(undefined);
  useEffect(() => {
    const shelf = shelfOf(me.id);
    const made = new AnswerSender(
      {
        ...shelf,
        send,
        later,
        changed: () => {
          setWaiting(made.isOffline ? made.waiting : 0);
          if (made.waiting === 0) void renew(client, 'review');
        },
      },
      shelf.kept(),
    );
    sender.current = made;
    return () => made.end();
  }, [me.id, client]);
  return { send: (one) => sender.current?.add({ ...one, key: v7() }), waiting };
}

async function send(waiting: Waiting): Promise<Outcome> {
  const params = { id: waiting.cardId, answerId: waiting.id };
  try {
    if (waiting.type === 'back') await call('DELETE /api/cards/:id/answers/:answerId', { params });
    else {
      const { rating, seen, at } = waiting;
      await call('PUT /api/cards/:id/answers/:answerId', { params, body: { rating, seen, at } });
    }
    return 'stored';
  } catch (error) {
    return error instanceof ProblemError && NO_LONGER.includes(error.problem.status) ? 'refused' : 'offline';
  }
}

function later(run: () => void): () => void {
  const timer = setTimeout(run, AGAIN);
  window.addEventListener('online', run);
  return () => {
    clearTimeout(timer);
    window.removeEventListener('online', run);
  };
}

/** Each by itself in the storage of this browser, so that two windows do not write over each other. */
function shelfOf(me: string) {
  const prefix = `avrelle.answer.${me}.`;
  return {
    keep: (waiting: Waiting) => localStorage.setItem(prefix + waiting.key, JSON.stringify(waiting)),
    drop: (waiting: Waiting) => localStorage.removeItem(prefix + waiting.key),
    kept: (): Waiting[] =>
      Object.keys(localStorage)
        .filter((key) => key.startsWith(prefix))
        .map((key) => JSON.parse(localStorage.getItem(key)!) as Waiting),
  };
}
