import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ReviewCard } from '@avrelle/core/wire';
import { BEGIN, cardAfter, cardAtHand, cardsLeft, practise, type Practice } from './practice';

const card = (id: string, source = 'tide', seen = 0): ReviewCard =>
  ({ id, seen, source: { id: source, title: source, language: 'en' } }) as ReviewCard;
const CAME = [card('a'), card('b', 'peat'), card('c')];
const answer = (now: Practice, came: readonly ReviewCard[]): Practice => {
  const left = cardsLeft(now, came);
  const at = cardAtHand(now, left)!;
  const next = cardAfter(left, at)?.id;
  return practise(now, { type: 'answer', card: at, rating: 'knew', id: `of ${at.id}`, next });
};
const left = (now: Practice, came = CAME) => cardsLeft(now, came).map((one) => one.id);

test('what was answered is gone, also while the server still gives it; the next one is of the same source', () => {
  const first = answer(practise(BEGIN, { type: 'lift' }), CAME);
  expect([left(first), first.current, first.lifted]).toEqual([['b', 'c'], 'c', false]);
  const second = answer(first, CAME);
  expect([left(second), second.current]).toEqual([['b'], 'b']);
  // It comes back once it is due again.
  expect(left(second, [card('a', 'tide', 1), card('b', 'peat')])).toEqual(['a', 'b']);
});

test('an answer is taken back: its card stands first, with its slip lifted, and counts once', () => {
  const back = practise(answer(BEGIN, CAME), { type: 'back' });
  expect([left(back), back.current, back.lifted, back.answered]).toEqual([['a', 'b', 'c'], 'a', true, []]);
  expect(left(back, [card('b', 'peat'), card('c')])).toEqual(['a', 'b', 'c']);
  expect(practise(BEGIN, { type: 'back' })).toBe(BEGIN);
});

test('whatever is answered and taken back, each card is left or answered, never both', () => {
  fc.assert(
    fc.property(fc.array(fc.boolean(), { maxLength: 15 }), (steps) => {
      let now = BEGIN;
      for (const forward of steps) {
        if (!forward) now = practise(now, { type: 'back' });
        else if (cardsLeft(now, CAME).length > 0) now = answer(now, CAME);
        const done = now.answered.map((one) => one.card.id);
        expect([...left(now), ...done].sort()).toEqual(['a', 'b', 'c']);
      }
    }),
  );
});
