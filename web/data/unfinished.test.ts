import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { AnnotationPut } from '@avrelle/core/wire';
import type { Entry, Write } from './outbox/write';
import { keepWords, passageIn, slotOf, unfinishedOn, type Purpose } from './unfinished';

const kept = globalThis.localStorage;
/** A browser's storage: what is stored are its own properties. */
function storage(full = false): Storage {
  const made = Object.create({
    getItem(this: Record<string, string>, key: string) {
      return Object.hasOwn(this, key) ? this[key]! : null;
    },
    setItem(this: Record<string, string>, key: string, value: string) {
      if (full) throw new Error('QuotaExceededError');
      this[key] = value;
    },
    removeItem(this: Record<string, string>, key: string) {
      delete this[key];
    },
  }) as Storage;
  Object.defineProperty(globalThis, 'localStorage', { value: made, configurable: true });
  return made;
}
beforeEach(() => void storage());
afterAll(() => void Object.defineProperty(globalThis, 'localStorage', { value: kept, configurable: true }));

const TEXT = 'The tide turns at seven, and the ferry leaves.';
const on = (words: string): Purpose => ({
  type: 'note',
  range: { start: TEXT.indexOf(words), end: TEXT.indexOf(words) + words.length },
  exact: words,
});

test('words stay with the passage they were begun on, of one person and source', () => {
  slotOf('ines', 's', on('ferry')).write({ note: 'later', kind: 'note' });
  slotOf('ines', 's', on('tide')).write({ note: 'sooner', kind: 'claim', tags: ['essay'] });
  slotOf('tomas', 's', on('tide')).write({ note: 'his' });
  slotOf('ines', 'other', on('tide')).write({ note: 'elsewhere' });
  expect(unfinishedOn('ines', 's').map((u) => u.note)).toEqual(['sooner', 'later']);
  expect(slotOf('ines', 's', on('tide')).read()).toMatchObject({
    note: 'sooner',
    kind: 'claim',
    tags: ['essay'],
    purpose: on('tide'),
  });
  slotOf('ines', 's', on('tide')).drop();
  expect([slotOf('ines', 's', on('tide')).read(), unfinishedOn('ines', 's').length]).toEqual([undefined, 1]);
});

test('blank words are no unfinished note, and what is broken or does not fit breaks nothing', () => {
  slotOf('ines', 's', on('tide')).write({ note: '  ' });
  localStorage.setItem('avrelle.unfinished/ines/s/note:1-2', 'no JSON');
  expect(unfinishedOn('ines', 's')).toEqual([]);
  storage(true);
  expect(() => slotOf('ines', 's', on('tide')).write({ note: 'full' })).not.toThrow();
});

test('in another version the words are looked for; where they are gone, nothing is guessed', () => {
  slotOf('ines', 's', on('ferry')).write({ note: 'which?' });
  const [note] = unfinishedOn('ines', 's');
  const found = (text: string) => {
    const at = passageIn(text, note!);
    return at && text.slice(at.start, at.end);
  };
  expect([found(TEXT), found(`Listen. ${TEXT}`), found('The tide turns.')]).toEqual(['ferry', 'ferry', undefined]);
});

test('the words of what was refused come back where they were written', () => {
  const refused = (write: Write): void =>
    keepWords({ seq: 1, key: 'k', personId: 'ines', sourceId: 's', tab: 't', write } satisfies Entry);
  const { start, end } = (on('tide') as { range: { start: number; end: number } }).range;
  refused({
    type: 'create',
    id: 'a',
    put: {
      anchor: { quote: { exact: 'tide' }, position: { start, end } },
      note: 'a note',
      kind: 'claim',
      tags: ['x'],
    } as unknown as AnnotationPut,
  });
  refused({
    type: 'create',
    id: 'b',
    put: {
      anchor: { quote: { exact: 'ferry' }, position: { start: 29, end: 34 } },
      note: '',
      kind: 'claim',
      tags: [],
    } as unknown as AnnotationPut,
  });
  refused({ type: 'reply', id: 'c', parentId: 'p', rootId: 'r', note: 'an answer' });
  refused({
    type: 'change',
    changes: [
      { id: 'd', version: 4, fields: { note: 'changed' }, before: { note: 'was' } },
      { id: 'e', version: 1, fields: { kind: 'doubt' }, before: { kind: 'claim' } },
    ],
  });
  expect(unfinishedOn('ines', 's').map((u) => [u.purpose.type, u.note])).toEqual([
    ['note', 'a note'],
    ['reply', 'an answer'],
    ['edit', 'changed'],
  ]);
  expect(slotOf('ines', 's', { type: 'edit', id: 'd', version: 5 }).read()?.purpose).toMatchObject({ version: 4 });
});
