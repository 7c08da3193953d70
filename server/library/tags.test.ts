import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, Problem, SourceDetail, TagPreview } from '@avrelle/core/wire';
import type { Client } from '../testing/harness';
import { sharedTexts, type SharedTexts } from '../testing/shared-texts';

let server: SharedTexts['server'];
let teacher: Client;
let student: Client;
let stranger: Client;
let ids: SharedTexts['ids'];
let outline: SharedTexts['outline'];
beforeAll(async () => {
  ({ server, teacher, student, stranger, ids, outline } = await sharedTexts());
});
afterAll(() => server.close());

describe('tags', () => {
  let note: string;
  const tagsOf = async () => [
    (await teacher.send<SourceDetail>('GET', `/api/sources/${ids[2]}`)).body.tags.toSorted(),
    (await teacher.send<Annotation[]>('GET', `/api/sources/${ids[2]}/annotations`)).body
      .find((a) => a.id === note)!
      .tags.toSorted(),
  ];
  beforeAll(async () => {
    note = v7();
    const source = (await teacher.send<SourceDetail>('GET', `/api/sources/${ids[2]}`)).body;
    await teacher.send('PUT', `/api/annotations/${note}`, {
      sourceId: ids[2],
      versionId: source.versionId,
      kind: 'claim',
      note: 'The #marsh, its #marsh/edge and `#marsh`.',
      tags: ['marsh', 'marsh/edge'],
      anchor: { quote: { exact: 'text', prefix: '', suffix: '' }, position: { start: 4, end: 8 } },
      classIds: [],
    });
    await teacher.send('PUT', `/api/sources/${ids[2]}/tags`, { tags: ['marsh', 'wet'] });
    await student.send('PUT', `/api/sources/${ids[2]}/tags`, { tags: ['marsh'] });
  });
  const change = (from: string, to: string, merge = false) =>
    teacher.send<Problem>('POST', '/api/tags/change', { from, to, merge });

  test('are suggested by what a source says and by habit, one’s own alone', async () => {
    const about = await teacher.keepText('wet ground', 'The marsh is wet, and the edge of the marsh is wetter.');
    expect((await teacher.send<string[]>('GET', `/api/sources/${about}/tag-suggestions`)).body).toEqual([
      'wet',
      'marsh',
      'marsh/edge',
    ]);
    expect([
      (await student.send<string[]>('GET', `/api/sources/${ids[0]}/tag-suggestions`)).body,
      (await stranger.send('GET', `/api/sources/${about}/tag-suggestions`)).status,
    ]).toEqual([[], 404]);
    await teacher.send('DELETE', `/api/sources/${about}`);
  });
  test('are renamed with what is beneath them, onto a name that is in use as well, and only one’s own', async () => {
    expect((await teacher.send<TagPreview>('POST', '/api/tags/preview', { from: 'marsh', to: 'wet' })).body).toEqual({
      sources: 1,
      annotations: 1,
      beneath: ['marsh/edge'],
      merges: ['wet'],
    });
    expect((await change('marsh', 'wet')).status).toBe(409);
    expect((await change('marsh', 'wet', true)).status).toBe(204);
    expect(await tagsOf()).toEqual([
      ['wet', 'wet/edge'],
      ['wet', 'wet/edge'],
    ]);
    expect((await student.send<SourceDetail>('GET', `/api/sources/${ids[2]}`)).body.tags).toEqual(['marsh']);
  });
  test('keep their name in the words of notes and in saved searches', async () => {
    const search = v7();
    const words = async () =>
      (await teacher.send<Annotation[]>('GET', `/api/sources/${ids[2]}/annotations`)).body.find((a) => a.id === note)!
        .note;
    await teacher.send('PUT', `/api/searches/${search}`, { name: 'Wet', query: 'tag:wet -#wet/edge wet' });
    expect(await words()).toBe('The #wet, its #wet/edge and `#marsh`.');
    await change('wet', 'damp');
    expect([await words(), (await outline()).searches.find((s) => s.id === search)!.query]).toEqual([
      'The #damp, its #damp/edge and `#marsh`.',
      'tag:damp -#damp/edge wet',
    ]);
    await change('damp', 'wet');
    // Also a mark that is deleted just then: taking that back goes by the version it was deleted at.
    const { version } = (await teacher.send<Annotation[]>('GET', `/api/sources/${ids[2]}/annotations`)).body.find(
      (a) => a.id === note,
    )!;
    const gone = (await teacher.send<Annotation>('PATCH', `/api/annotations/${note}`, { version, deleted: true })).body;
    await change('wet', 'damp');
    expect(
      (await teacher.send('PATCH', `/api/annotations/${note}`, { version: gone.version, deleted: false })).status,
    ).toBe(200);
    expect([await words(), (await tagsOf())[1]]).toEqual([
      'The #damp, its #damp/edge and `#marsh`.',
      ['damp', 'damp/edge'],
    ]);
    await change('damp', 'wet');
    await teacher.send('DELETE', `/api/searches/${search}`);
  });
  test('say which of those beneath become one with others, and refuse names that would be too long', async () => {
    await teacher.send('PUT', `/api/sources/${ids[1]}/tags`, { tags: ['dry', 'dry/edge', 'dry/rim'] });
    await teacher.send('PUT', `/api/sources/${ids[0]}/tags`, { tags: ['arid/edge'] });
    expect(
      (await teacher.send<TagPreview>('POST', '/api/tags/preview', { from: 'dry', to: 'arid' })).body.merges,
    ).toEqual(['arid/edge']);
    expect((await change('dry', 'arid')).body.code).toBe('tag_in_use');
    expect((await change('dry', 'x'.repeat(58))).body.detail).toMatch(
      /#dry\/edge would become .* at most 60 characters/,
    );
    // A new name may be the former one of another that moves as well.
    await teacher.send('PUT', `/api/sources/${ids[1]}/tags`, { tags: ['a/b', 'a/b/b', 'a/b/c'] });
    await change('a/b', 'a');
    expect((await teacher.send<SourceDetail>('GET', `/api/sources/${ids[1]}`)).body.tags.toSorted()).toEqual([
      'a',
      'a/b',
      'a/c',
    ]);
    for (const id of ids.slice(0, 2)) await teacher.send('PUT', `/api/sources/${id}/tags`, { tags: [] });
  });
  test('have a tint, one’s own alone, which goes where they go', async () => {
    const tint = (tag: string, to: string | null) => teacher.send<Problem>('PUT', '/api/tags/tint', { tag, tint: to });
    const tints = async (who: Client) => (await who.send<Record<string, string>>('GET', '/api/tags/tints')).body;
    expect([
      (await tint('wet', 'moss')).status,
      (await tint('wet/edge', 'clay')).status,
      await tints(teacher),
      await tints(student),
    ]).toEqual([204, 204, { wet: 'moss', 'wet/edge': 'clay' }, {}]);
    await change('wet', 'damp');
    expect(await tints(teacher)).toEqual({ damp: 'moss', 'damp/edge': 'clay' });
    await change('damp', 'wet');
    await tint('wet', null);
    expect([
      await tints(teacher),
      (await tint('wet', 'gold')).status,
      (await server.nobody.send('GET', '/api/tags/tints')).status,
    ]).toEqual([{ 'wet/edge': 'clay' }, 400, 401]);
  });
  test('move up and down, never beneath themselves, and are taken away', async () => {
    await change('wet/edge', 'edge');
    expect(await tagsOf()).toEqual([
      ['edge', 'wet'],
      ['edge', 'wet'],
    ]);
    expect((await change('wet', 'wet/deep')).body.detail).toMatch(/beneath itself/);
    await change('edge', 'wet/edge');
    await change('wet', '');
    expect(await tagsOf()).toEqual([[], []]);
    expect((await change('a'.repeat(10_000), 'b')).status).toBe(400);
  });
});
