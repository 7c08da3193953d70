import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Marked } from '@avrelle/core/query';
import type { Annotation, AnnotationPage, SourceDetail, SourcePage, SourceText } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

const FORMULA =
  '<math><semantics><mrow><mi>v</mi><mo>=</mo><mi>k</mi></mrow><annotation encoding="application/x-tex">v = k</annotation></semantics></math>';
const PAGE = `<!doctype html><html lang="en"><title>Creeks</title><main><h1>Creeks</h1>
<p>Water <em>always</em> finds <a href="https://review.saltmere.test/peg">peg seven</a>, as <code>peg --read</code> says.<sup>3</sup> Its speed is ${FORMULA} at ebb.</p>
<ul><li>The <strong>first</strong> creek</li><li>the second <img src="data:image/gif;base64,R0lGODlhAQABAAAAACw=" alt="a creek at dusk"> creek</li></ul></main></html>`;

let server: Server;
let me: Client;
let source: SourceDetail;
let text: string;
const id = v7();
const wordsOf = (pieces: Marked | undefined): string => (pieces ?? []).map((piece) => piece.text).join('');
const as = (pieces: Marked | undefined, words: string): unknown => pieces?.find((piece) => piece.text === words)?.as;

beforeAll(async () => {
  server = await startServer();
  me = await server.person('Reader');
  const kept = await me.keepFile('creeks.html', Buffer.from(PAGE));
  source = (await me.send<SourceDetail>('GET', `/api/sources/${kept.sourceId}`)).body;
  text = (await me.send<SourceText>('GET', `/api/sources/${source.id}/text`)).body.text;
  const start = text.indexOf('Water');
  const exact = text.slice(start);
  const anchor = { quote: { exact, prefix: '', suffix: '' }, position: { start, end: text.length } };
  await me.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'note',
    note: '**Why** so?',
    tags: [],
    classIds: [],
    anchor,
  });
});
afterAll(() => server.close());

test('a mark keeps what its words are in their source; the anchor is plain words', async () => {
  const [mark] = (await me.send<Annotation[]>('GET', `/api/sources/${source.id}/annotations`)).body;
  const { anchor, quoted } = mark!;
  expect(anchor!.quote.exact).toContain('Water always finds peg seven, as peg --read says.3');
  expect(wordsOf(quoted).replace(' [a creek at dusk]', '')).toBe(anchor!.quote.exact);
  expect(as(quoted, 'always')).toEqual([{ type: 'emphasis', value: '' }]);
  expect(as(quoted, 'peg seven')).toEqual([{ type: 'link', value: 'https://review.saltmere.test/peg' }]);
  expect(as(quoted, '3')).toEqual([{ type: 'super', value: '' }]);
  expect(as(quoted, ' [a creek at dusk]')).toEqual([{ type: 'picture', value: 'a creek at dusk' }]);
});

test('so do lists of marks, with the words that were looked for; and the list of sources', async () => {
  const [hit] = (await me.send<AnnotationPage>('GET', '/api/annotations?q=always')).body.annotations;
  expect(hit!.quote.find((piece) => piece.text === 'always')).toEqual({
    text: 'always',
    hit: true,
    as: [{ type: 'emphasis', value: '' }],
  });
  expect(wordsOf(hit!.note)).toBe('Why so?');
  const [row] = (await me.send<SourcePage>('GET', '/api/sources')).body.sources;
  expect(as(row!.excerpts[0]!.quote, 'first')).toEqual([{ type: 'strong', value: '' }]);
  expect(row!.excerpts[0]!.note).toBe('Why so?');
});

const QUOTED = [
  'Water *always* finds [peg seven](https://review.saltmere.test/peg), as `peg --read` says.<sup>3</sup> Its speed is $v = k$ at ebb.',
  'The **first** creek',
  'the second \\[a creek at dusk] creek',
];

test('in study notes and W3C files it is Markdown; each item stays a line of its own', async () => {
  const { text: notes } = await me.send('GET', `/api/sources/${source.id}/study-notes.md`);
  expect(notes).toContain(QUOTED.map((line) => `> ${line}`).join('\n>\n'));
  const [mark] = (
    await me.send<{ target: Record<string, unknown> }[]>('GET', `/api/sources/${source.id}/annotations.jsonld`)
  ).body;
  expect(mark!.target['avrelle:quotation']).toBe(QUOTED.join('\n\n'));
});
