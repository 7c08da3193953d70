import { expect, test } from '@jest/globals';
import { indexText } from '@avrelle/core/anchor';
import { STARTING_LEGEND } from '@avrelle/core/legend';
import { annotationsIn, readWebAnnotation } from './web-annotations';

const index = indexText('The tide table hangs in the hall. Read it before you walk.');
const selector = { type: 'TextQuoteSelector', exact: 'tide table' };
const KINDS = [
  ...STARTING_LEGEND,
  { ...STARTING_LEGEND[0]!, code: '019ab000-0000-7000-8000-000000000000', name: 'For the essay' },
];
const read = (more: object) =>
  readWebAnnotation(index, KINDS, { type: 'Annotation', target: { source: 'http://x.test/', selector }, ...more });

test('one, a list, a page and a collection are understood (Web Annotation Data Model, 3.1, 5.1, 5.2)', () => {
  const one = { type: 'Annotation', target: 'http://x.test/' };
  expect(annotationsIn(one)).toEqual([one]);
  expect(annotationsIn([one, one])).toHaveLength(2);
  expect(annotationsIn({ type: 'AnnotationPage', items: [one] })).toEqual([one]);
  expect(
    annotationsIn({ type: 'AnnotationCollection', first: { type: 'AnnotationPage', items: [one, one] } }),
  ).toHaveLength(2);
});

test.each([
  ['a body value (3.2.5)', { bodyValue: 'Comment text' }, { note: 'Comment text', kind: 'note', tags: [] }],
  [
    'an embedded textual body (3.2.4)',
    { body: { type: 'TextualBody', value: "<p>j'adore !</p>", format: 'text/html' } },
    { note: "<p>j'adore !</p>" },
  ],
  [
    'a comment and tags by purpose (3.3.5)',
    {
      body: [
        { type: 'TextualBody', purpose: 'tagging', value: 'Salt Marsh' },
        { type: 'TextualBody', purpose: 'commenting', value: 'See this' },
      ],
    },
    { note: 'See this', tags: ['salt-marsh'] },
  ],
  [
    'a body that is only an address (3.2.1)',
    { body: 'http://example.test/post1' },
    { note: 'http://example.test/post1' },
  ],
  [
    'a kind of our own',
    { body: { type: 'TextualBody', purpose: 'classifying', value: 'evidence' } },
    { kind: 'evidence', note: '' },
  ],
  [
    'a kind somebody made, by its name',
    { body: { type: 'TextualBody', purpose: 'classifying', value: 'for the Essay' } },
    { kind: '019ab000-0000-7000-8000-000000000000' },
  ],
  ['questioning', { motivation: 'questioning', bodyValue: 'Why?' }, { kind: 'question', note: 'Why?' }],
  ['a bare highlight', { motivation: 'highlighting' }, { kind: 'keep', note: '' }],
])('%s', (_, given, expected) => {
  expect(read(given)).toMatchObject({ ok: true, anchor: { quote: { exact: 'tide table' } }, ...expected });
});

test.each([
  [
    'an answer without a word',
    { motivation: 'replying', target: 'urn:uuid:0193a1b2-0000-7000-8000-000000000001' },
    /without a word/,
  ],
  ['an answer to nothing', { motivation: 'replying', bodyValue: 'Why?', target: {} }, /does not say which/],
  [
    'words that are not there',
    { target: { selector: { ...selector, exact: 'Herring gulls and terns' } } },
    /leads to a passage/,
  ],
  ['another type', { type: 'Bookmark' }, /not of the type/],
])('%s: why it is not brought in', (_, given, why) => {
  expect(read(given)).toMatchObject({ ok: false, why: expect.stringMatching(why) });
});

test('without a selector the whole source is meant (3.1)', () => {
  expect(read({ target: 'http://x.test/', bodyValue: 'All of it' })).toMatchObject({
    ok: true,
    note: 'All of it',
    anchor: { spot: { type: 'whole' } },
  });
});

test('an annotation is known again by its id, else by all that it says', () => {
  expect(read({ id: 'urn:uuid:0193a1b2-0000-7000-8000-000000000001' })).toMatchObject({
    name: '0193a1b2-0000-7000-8000-000000000001',
  });
  expect(read({ id: 'http://elsewhere.test/1' })).toMatchObject({ name: 'http://elsewhere.test/1' });
  const [one, same, other] = [read({ bodyValue: 'a' }), read({ bodyValue: 'a' }), read({ bodyValue: 'b' })];
  expect(one).toEqual(same);
  expect(other).not.toMatchObject({ name: (one as { name: string }).name });
});

test('an answer names what it answers, and whose it was', () => {
  const target = 'urn:uuid:0193a1b2-0000-7000-8000-000000000001';
  const reply = { motivation: 'replying', target, bodyValue: 'Why?', creator: { name: 'Tomas Rell' } };
  expect(read(reply)).toMatchObject({ ok: true, type: 'reply', to: target.slice(9), note: 'Tomas Rell: Why?' });
  expect(readWebAnnotation(index, KINDS, { type: 'Annotation', ...reply }, 'Tomas Rell')).toMatchObject({
    note: 'Why?',
  });
});
