import { describe, expect, test } from '@jest/globals';
import { ValidationError, type AnyObjectSchema } from 'yup';
import {
  annotationPatchSchema,
  annotationPutSchema,
  classPutSchema,
  joinSchema,
  keepSchema,
  shelfSchema,
  sourceTagsSchema,
  TAG,
  UUID_V7,
} from './index';

const ID = '0193a1b2-0000-7000-8000-000000000001';
const put = {
  sourceId: ID,
  versionId: ID,
  kind: 'claim',
  note: '',
  tags: [],
  anchor: { quote: { exact: 'tide', prefix: '', suffix: '' }, position: { start: 0, end: 4 } },
  classIds: [],
};
const wrong = (schema: AnyObjectSchema, value: unknown): string | undefined => {
  try {
    schema.validateSync(value);
    return undefined;
  } catch (error) {
    return (error as ValidationError).path;
  }
};

test('only version 7 UUIDs in lower case are ids (RFC 9562, 5.7)', () => {
  expect(UUID_V7.test(ID)).toBe(true);
  for (const bad of [
    '',
    ID.toUpperCase(),
    '0193a1b2-0000-4000-8000-000000000001',
    '0193a1b2-0000-7000-c000-000000000001',
    `${ID} `,
  ])
    expect(UUID_V7.test(bad)).toBe(false);
});

test('a tag is one word of any script', () => {
  for (const good of ['accretion', 'essay/opening', 'oral-history', 'λάσπη', '潮', 'week4'])
    expect([good, TAG.test(good)]).toEqual([good, true]);
  for (const bad of ['', 'two words', 'a#b', 'a,b', 'x'.repeat(61), '<b>'])
    expect([bad, TAG.test(bad)]).toEqual([bad, false]);
});

describe('an annotation to write', () => {
  test('holds what it must', () => expect(wrong(annotationPutSchema, put)).toBeUndefined());
  test.each([
    ['sourceId', { sourceId: 'x' }],
    ['kind', { kind: 'shout' }],
    ['note', { note: 'x'.repeat(20_001) }],
    ['tags[0]', { tags: ['two words'] }],
    ['anchor.quote.exact', { anchor: { ...put.anchor, quote: { exact: '', prefix: '', suffix: '' } } }],
    ['anchor.position.start', { anchor: { ...put.anchor, position: { start: -1, end: 4 } } }],
    ['anchor.position.end', { anchor: { ...put.anchor, position: { start: 0, end: 4.5 } } }],
    ['classIds[0]', { classIds: ['everybody'] }],
    ['anchor', { anchor: undefined }],
  ])('names %s when that is wrong', (path, change) => {
    expect(wrong(annotationPutSchema, { ...put, ...change })).toMatch(
      new RegExp(`^${path.replace(/[[\].]/g, '\\$&')}`),
    );
  });
  test('loses fields it does not know', () =>
    expect(annotationPutSchema.validateSync({ ...put, authorId: ID })).toEqual(put));
});

test('a change needs the version it changes', () => {
  expect(wrong(annotationPatchSchema, { note: 'x' })).toBe('version');
  expect(wrong(annotationPatchSchema, { version: 0 })).toBe('version');
  expect(wrong(annotationPatchSchema, { version: 1, deleted: true })).toBeUndefined();
});

test('tags are trimmed and lowered, codes raised, on the way in', () => {
  expect(sourceTagsSchema.validateSync({ tags: [' Accretion '] }).tags).toEqual(['accretion']);
  expect(joinSchema.validateSync({ code: ' abc234 ' }).code).toBe('ABC234');
  expect(classPutSchema.validateSync({ name: '  Field Course ', tint: 'moss' }).name).toBe('Field Course');
});

test('spans are pairs of whole numbers, an address is asked for in words', () => {
  expect(
    wrong(shelfSchema, {
      spans: [
        [0, 5],
        [9, 12],
      ],
    }),
  ).toBeUndefined();
  expect(wrong(shelfSchema, { spans: [[0, -5]] })).toBeDefined();
  expect(wrong(shelfSchema, { state: 'burnt' })).toBe('state');
  expect(() => keepSchema.validateSync({ id: ID, address: ' ' })).toThrow('Paste the address of a page.');
});

describe('what is no words, in an anchor', () => {
  const on = { picture: 'a'.repeat(64) };
  const area = { type: 'area', on, x: 0.1, y: 0.1, width: 0.2, height: 0.2 };
  const drawn = {
    type: 'drawn',
    tool: 'pen',
    colour: 'ink',
    width: 0.1,
    tied: { to: 'lines', strokes: [[[0, 0, 0.5]]] },
  };
  const withSpot = (spot: unknown) => ({ ...put, anchor: { ...put.anchor, spot } });
  test.each([
    ['nothing', undefined],
    ['an area', area],
    ['a point', { ...area, width: 0, height: 0 }],
    ['a moment', { type: 'time', from: 3, to: 3 }],
    ['the whole source', { type: 'whole' }],
    ['a drawing', drawn],
  ])('%s is taken', (_, spot) => expect(wrong(annotationPutSchema, withSpot(spot))).toBeUndefined());
  test.each<[string, unknown, string]>([
    ['an unknown type', { type: 'star' }, 'anchor.spot'],
    ['a page and a picture', { ...area, on: { ...on, page: 1 } }, 'anchor.spot.on'],
    ['an area without its height', { ...area, height: undefined }, 'anchor.spot'],
    ['an area beyond the edge', { ...area, x: 1.2 }, 'anchor.spot.x'],
    ['a time that ends before it begins', { type: 'time', from: 9, to: 3 }, 'anchor.spot'],
    ['a drawing in a colour that is a style', { ...drawn, colour: 'red;x' }, 'anchor.spot'],
    ['words for a spot', 'here', 'anchor.spot'],
  ])('%s is not, and is named', (_, spot, path) => expect(wrong(annotationPutSchema, withSpot(spot))).toBe(path));
});
