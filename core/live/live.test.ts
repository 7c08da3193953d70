import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Live, LiveTold, ShowingMessage } from '../wire/live';
import {
  begun,
  changed,
  heard,
  MOST_STROKES,
  NOTHING_SHOWN,
  samePlace,
  toSayAgain,
  withStroke,
  type Numbered,
} from './live';
import { readLiveMessage } from './read-message';

const SOURCE = '01940000-0000-7000-8000-000000000001';
const NOTE = '01940000-0000-7000-8000-000000000002';
const place = (annotationId: string | null = null, start = 0) => ({
  sourceId: SOURCE,
  annotationId,
  range: { start, end: start + 5 },
});
const first: Live = begun(
  { classId: 'c', by: { id: 'p', name: 'Aldous' }, startedAt: '2026-12-01T09:00:00.000Z' },
  { walkthroughId: null, place: place(), step: null, takeOver: false },
  null,
);
const ink = (x: number) => ({
  range: { start: 0, end: 5 },
  spot: {
    type: 'drawn' as const,
    tool: 'pen' as const,
    colour: 'ink',
    width: 0.1,
    tied: { to: 'words' as const, words: [[0, 5]] as const, strokes: [[[0, x, 0.5, 0.5]]] as const },
  },
});

test('another place begins anew, with answers hidden and nothing asked; covered screens stay covered', () => {
  const before: Live = { ...first, top: 90, answers: true, questionId: NOTE, blank: true };
  const after = changed(before, { type: 'place', place: place(NOTE, 40), step: { at: 1, of: 7 } });
  expect(after).toMatchObject({ top: null, answers: false, questionId: null, blank: true, step: { at: 1, of: 7 } });
  expect(samePlace(after.place, place(NOTE, 40))).toBe(true);
  expect(samePlace(after.place, place(NOTE, 41))).toBe(false);
});

test('who takes over, or shows something else, goes on where it was; screens stay covered', () => {
  const before: Live = { ...first, top: 90, blank: true, answers: true, questionId: NOTE };
  const by = { id: 'q', name: 'Sten' };
  const of = { classId: 'c', by, startedAt: first.startedAt };
  const start = { walkthroughId: null, place: place(), step: null, takeOver: true };
  expect(begun(of, start, before)).toEqual({ ...before, by });
  expect(begun(of, { ...start, place: place(NOTE) }, before)).toMatchObject({
    by,
    top: null,
    blank: true,
    answers: false,
    questionId: null,
  });
});

test('a stroke that goes on takes the place of what it was; the oldest gives way', () => {
  const many = Array.from({ length: MOST_STROKES + 3 }, (_, n) => ({ id: String(n), ink: ink(0) }));
  const all = many.reduce(withStroke, [] as readonly { id: string; ink: ReturnType<typeof ink> }[]);
  expect([all.length, all[0]!.id]).toEqual([MOST_STROKES, '3']);
  const grown = withStroke(all, { id: '10', ink: ink(0.7) });
  expect([grown.length, grown.findIndex(({ id }) => id === '10')]).toEqual([MOST_STROKES, 7]);
  expect(grown[7]!.ink).toEqual(ink(0.7));
});

/** A server that says what stands, as `Room` does. */
const message: fc.Arbitrary<ShowingMessage> = fc.oneof(
  fc.record({
    type: fc.constant('place' as const),
    place: fc.integer({ min: 0, max: 2 }).map((at) => place(null, at)),
    step: fc.constant(null),
  }),
  fc.record({ type: fc.constant('top' as const), at: fc.integer({ min: 0, max: 9 }) }),
  fc.record({ type: fc.constant('blank' as const), on: fc.boolean() }),
  fc.record({ type: fc.constant('answers' as const), on: fc.boolean() }),
  fc.record({ type: fc.constant('pointer' as const), at: fc.constantFrom(null, ink(0.2)) }),
  fc.record({ type: fc.constant('ink' as const), id: fc.constantFrom('a', 'b'), ink: fc.constantFrom(ink(0), ink(1)) }),
  fc.record({ type: fc.constant('wipe' as const) }),
);

function told(message: ShowingMessage, n: number, live: Live): Numbered {
  switch (message.type) {
    case 'top':
    case 'pointer':
    case 'ink':
    case 'wipe':
      return { ...message, n } as Numbered;
    default:
      return { type: 'live', n, live };
  }
}

test('whatever is lost on the way, who asks for everything after a gap sees what is shown', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(message, fc.boolean())), (said) => {
      let live = first;
      let truth = { ...NOTHING_SHOWN, n: 0, live: first as Live | null };
      let seen = truth;
      let n = 0;
      for (const [one, isLost] of said) {
        live = changed(live, one);
        const next = told(one, ++n, live);
        truth = heard(truth, next)!;
        if (isLost) continue;
        seen =
          heard(seen, next) ??
          heard(seen, { type: 'state', me: null, teaches: false, ...truth } as LiveTold & Numbered)!;
        expect(seen).toEqual(truth);
      }
    }),
  );
});

test('what is heard twice, or late, changes nothing; what is heard after a gap is not believed', () => {
  const shown = { ...NOTHING_SHOWN, n: 4, live: first };
  expect(heard(shown, { type: 'top', n: 4, at: 7 })).toBe(shown);
  expect(heard(shown, { type: 'top', n: 6, at: 7 })).toBeUndefined();
  expect(heard(shown, { type: 'top', n: 5, at: 7 })!.live!.top).toBe(7);
});

test('ink and pointer go with the place they were on', () => {
  const shown = { n: 1, live: first, ink: [{ id: 'a', ink: ink(0) }], pointer: ink(0) };
  expect(heard(shown, { type: 'live', n: 2, live: { ...first, blank: true } })!.ink).toHaveLength(1);
  const gone = heard(shown, { type: 'live', n: 2, live: { ...first, place: place(NOTE) } })!;
  expect([gone.ink, gone.pointer]).toEqual([[], null]);
});

test.each([
  ['no JSON', '{'],
  ['no object', '7'],
  ['no type', '{}'],
  ['a type of every object', '{"type":"toString"}'],
  ['a place without a source', '{"type":"place","place":{},"step":null}'],
  ['a word for a truth', '{"type":"blank","on":"true"}'],
  ['a field that is none', '{"type":"wipe","all":true}'],
  ['a place in pixels', '{"type":"top","at":10.5}'],
  ['ink tied to nothing', '{"type":"ink","id":"' + NOTE + '","ink":{"range":{"start":0,"end":5},"spot":{}}}'],
  ['too much', JSON.stringify({ type: 'wipe', more: 'x'.repeat(200_000) })],
])('%s is no message', (_name, text) => {
  expect(() => readLiveMessage(text)).toThrow(/\w/);
});

test('a message is read with what may be left out of it', () => {
  expect(readLiveMessage(JSON.stringify({ type: 'place', place: { sourceId: SOURCE } }))).toEqual({
    type: 'place',
    place: { sourceId: SOURCE, annotationId: null, range: null },
    step: null,
  });
  expect(readLiveMessage(JSON.stringify({ type: 'pointer', at: ink(0.25) }))).toEqual({
    type: 'pointer',
    at: ink(0.25),
  });
});

test('what was done without a connection is said again, and a server that started anew learns of the ink', () => {
  const nothing = { ...NOTHING_SHOWN, n: 0, live: first as Live | null };
  const doing = (from: typeof nothing, said: readonly ShowingMessage[]) =>
    said.reduce((shown, one) => heard(shown, told(one, shown.n + 1, changed(shown.live!, one)))!, from);
  fc.assert(
    fc.property(fc.array(message), fc.array(message), (together, alone) => {
      const theirs = doing(nothing, together);
      const mine = doing(theirs, alone);
      for (const server of [theirs, nothing]) {
        const after = doing(server, toSayAgain(mine, server, 'p'));
        expect(after.live).toEqual(mine.live);
        expect(new Map(after.ink.map((one) => [one.id, one.ink]))).toEqual(
          new Map(mine.ink.map((one) => [one.id, one.ink])),
        );
        expect(toSayAgain(mine, after, 'p')).toEqual([]);
      }
    }),
  );
  expect(toSayAgain({ ...nothing, live: { ...first, blank: true } }, nothing, 'somebody else')).toEqual([]);
});
