import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { AnswerSender, type Outcome, type Waiting } from './answer-sender';

const answer = (n: number): Waiting => ({
  type: 'answer',
  key: String(n).padStart(4, '0'),
  cardId: `card ${n}`,
  id: `answer ${n}`,
  rating: 'knew',
  seen: 0,
  at: '2026-11-20T08:00:00.000Z',
});

function world(outcomes: Outcome[]) {
  const sent: string[] = [];
  const kept = new Map<string, Waiting>();
  const runs: (() => void)[] = [];
  return {
    sent,
    kept,
    /** Tries again, until nothing waits to be tried. */
    settle: async () => {
      for (let n = 0; n < 200; n++) {
        await Promise.resolve();
        runs.shift()?.();
      }
    },
    send: async (waiting: Waiting): Promise<Outcome> => {
      await Promise.resolve();
      const outcome = outcomes.shift() ?? 'stored';
      if (outcome !== 'offline') sent.push(waiting.key);
      return outcome;
    },
    keep: (waiting: Waiting) => void kept.set(waiting.key, waiting),
    drop: (waiting: Waiting) => void kept.delete(waiting.key),
    later: (run: () => void) => {
      runs.push(run);
      return () => void runs.splice(runs.indexOf(run), 1);
    },
    changed: () => undefined,
  };
}

test('whatever becomes of each, all are sent once, in the order in which they were given', async () => {
  const outcome = fc.constantFrom<Outcome>('stored', 'offline', 'refused');
  await fc.assert(
    fc.asyncProperty(fc.array(outcome, { maxLength: 12 }), fc.integer({ min: 0, max: 6 }), async (outcomes, left) => {
      const at = world(outcomes);
      const before = Array.from({ length: left }, (_, n) => answer(n));
      for (const one of before) at.keep(one);
      const sender = new AnswerSender(at, before.toReversed());
      for (let n = left; n < left + 5; n++) {
        sender.add(answer(n));
        if (n % 2 === 0) await Promise.resolve();
      }
      await at.settle();
      expect(at.sent).toEqual(Array.from({ length: left + 5 }, (_, n) => answer(n).key));
      expect([sender.waiting, at.kept.size]).toEqual([0, 0]);
    }),
    { numRuns: 100 },
  );
});

test('who leaves keeps what was not sent', async () => {
  const at = world(['offline']);
  const sender = new AnswerSender(at, []);
  sender.add(answer(1));
  await at.settle().then(() => undefined);
  const slow = world(Array.from({ length: 400 }, () => 'offline' as const));
  const other = new AnswerSender(slow, []);
  other.add(answer(2));
  await Promise.resolve();
  await Promise.resolve();
  other.end();
  await slow.settle();
  expect([...slow.kept.keys()]).toEqual([answer(2).key]);
  expect([other.waiting, slow.sent]).toEqual([1, []]);
});
