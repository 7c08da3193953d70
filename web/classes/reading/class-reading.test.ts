import { expect, test } from '@jest/globals';
import { startingKind } from '@avrelle/core/legend';
import type { Annotation, SourceText } from '@avrelle/core/wire';
import { classReading, STRETCHES } from './class-reading';

const WORDS = 'The tide\nThe tide turns at seven. Nobody had told the heron. It stood in the creek.';
const TEXT = {
  text: WORDS,
  outline: [
    { role: 'heading', level: 1, start: 0, end: 8 },
    { role: 'heading', level: 4, start: 9, end: 12 },
    { role: 'paragraph', start: 9, end: WORDS.length },
  ],
} as unknown as SourceText;

const mark = (author: string, words: string, more: object = {}): Annotation =>
  ({
    ...{ id: `${author} ${words}`, author: { id: author, name: author }, classIds: ['b'], rootId: null },
    kind: startingKind('claim')!,
    place: { start: WORDS.indexOf(words), end: WORDS.indexOf(words) + words.length },
    ...more,
  }) as unknown as Annotation;

const read = (annotations: readonly Annotation[]) =>
  classReading(TEXT, annotations, { classIds: ['b'], students: ['ines', 'tomas'], teachers: ['aldous'] }, 'en');

test('only marks for the class that stand in the text count, of its students and teachers as they are now', () => {
  const found = read([
    mark('ines', 'tide turns at seven.'),
    mark('tomas', 'The tide turns at seven.'),
    mark('tomas', 'heron', { classIds: ['a'] }),
    mark('tomas', 'creek', { deleted: true }),
    mark('tomas', 'stood', { place: { start: null, end: null } }),
    mark('ines', 'told', { rootId: 'x' }),
    mark('former', 'Nobody had told the heron.'),
    mark('aldous', 'It stood in the creek.'),
  ]);
  expect(found.drew.map((p) => [WORDS.slice(p.start, p.end), p.readers])).toEqual([['The tide turns at seven.', 2]]);
  expect(found.missed.map((p) => WORDS.slice(p.start, p.end))).toEqual(['It stood in the creek.']);
  expect([found.marks.get('ines')!.length, found.marks.get('tomas')!.length, found.taught.length]).toEqual([1, 1, 1]);
  expect([found.density.length, Math.max(...found.density)]).toEqual([STRETCHES, 2]);
  expect(found.headings).toEqual([{ at: 0, words: 'The tide' }]);
  expect([found.beside.get('ines'), found.agreement.alpha]).toEqual([
    { recall: 0, precision: 0, kappa: expect.closeTo(-1 / 3) },
    null,
  ]);
});

test('where teachers marked nothing, nothing is compared with them', () =>
  expect(read([mark('ines', 'heron')]).beside.get('ines')!.recall).toBeNull());
