import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, CollectionDetail, DeletedSource, LibraryOutline, Problem, SourceChangesMade, SourceDetail, SourcePage, TagPreview } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import { removeExpired } from './remove-expired';

let server: Server, teacher: Client, student: Client, stranger: Client, classId: string;
const ids: string[] = [];
beforeAll(async () => {
  server = await startServer();
  [teacher, student, stranger] = [await server.person('Teacher'), await server.person('Student'), await server.person('Stranger')];
  classId = v7();
  await teacher.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'moss' });
  const { code } = (await teacher.send<{ code: string }>('GET', `/api/classes/${classId}`)).body;
  await student.send('POST', '/api/classes/join', { code });
  server.context.db.run('DELETE FROM saved_search');
  for (const title of ['one', 'two', 'three', 'own']) ids.push(await teacher.keepText(title, `The text of ${title}.`));
  for (const id of ids.slice(0, 3)) await teacher.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
});
afterAll(() => server.close());

const outline = async (who = teacher): Promise<LibraryOutline> => (await who.send<LibraryOutline>('GET', '/api/library')).body;
const make = async (who: Client, name: string, more: object = {}): Promise<CollectionDetail> => {
  const { status, body } = await who.send<CollectionDetail>('PUT', `/api/collections/${v7()}`, { name, ...more });
  expect([status, name]).toEqual([200, name]);
  return body;
};
const order = (c: CollectionDetail) => c.items.map((i) => [i.source.title.toLowerCase(), i.section]);

describe('collections', () => {
  test('hold sources in sections, in an order of one’s own, and are found by in:', async () => {
    const made = await make(teacher, 'Essay: retreat'), added = (await teacher.send<CollectionDetail>('POST', `/api/collections/${made.id}/sources`, { sourceIds: [ids[0], ids[1], ids[3]] })).body;
    expect(order(added)).toEqual([['one', -1], ['two', -1], ['own', -1]]);
    const put = (await teacher.send<CollectionDetail>('PUT', `/api/collections/${made.id}/order`, { version: added.version, sections: ['Opening', 'Data'], items: [{ sourceId: ids[3], section: 0 }, { sourceId: ids[0], section: 1 }, { sourceId: ids[1], section: 1 }] })).body;
    expect([order(put), put.sections]).toEqual([[['own', 0], ['one', 1], ['two', 1]], ['Opening', 'Data']]);
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=in:%22essay: retreat%22')).body.total).toBe(3);
    expect((await outline()).collections).toMatchObject([{ name: 'Essay: retreat', count: 3, owned: true }]);
    const less = (await teacher.send<CollectionDetail>('DELETE', `/api/collections/${made.id}/sources`, { sourceIds: [ids[0]] })).body;
    expect(order(less)).toEqual([['own', 0], ['two', 1]]);
  });

  test('two people who order one at once: the later one is shown what stands', async () => {
    const made = await make(teacher, 'Shared', { classId, may: 'add' });
    const { body } = await student.send<CollectionDetail>('POST', `/api/collections/${made.id}/sources`, { sourceIds: [ids[0], ids[1]] });
    const items = [1, 0].map((n) => ({ sourceId: ids[n], section: -1 })), put = (who: Client) => who.send<Problem & CollectionDetail>('PUT', `/api/collections/${made.id}/order`, { version: body.version, sections: [], items });
    const [first, second] = [await teacher.send<CollectionDetail>('PUT', `/api/collections/${made.id}/order`, { version: body.version, sections: [], items }), await put(student)];
    expect([first.status, second.status, second.body.code]).toEqual([200, 409, 'stale']);
    expect(order(second.body.current as CollectionDetail)).toEqual([['two', -1], ['one', -1]]);
  });

  test('whoever removes or moves sections takes along what they may not see in them', async () => {
    const made = await make(teacher, 'In sections', { classId, may: 'add' }), at = `/api/collections/${made.id}`;
    const { version } = (await teacher.send<CollectionDetail>('POST', `${at}/sources`, { sourceIds: [ids[0], ids[3]] })).body;
    const two = [{ sourceId: ids[0], section: 0 }, { sourceId: ids[3], section: 1 }];
    const put = (await teacher.send<CollectionDetail>('PUT', `${at}/order`, { version, sections: ['Alpha', 'Beta'], items: two })).body;
    const mine = [{ sourceId: ids[0], section: 1 }];
    const turned = (await student.send<CollectionDetail>('PUT', `${at}/order`, { version: put.version, sections: ['Beta', 'Alpha'], was: [1, 0], items: mine })).body;
    expect(order((await teacher.send<CollectionDetail>('GET', at)).body)).toEqual([['own', 0], ['one', 1]]);
    await student.send('PUT', `${at}/order`, { version: turned.version, sections: ['Alpha'], was: [1], items: [{ sourceId: ids[0], section: 0 }] });
    expect(order((await teacher.send<CollectionDetail>('GET', at)).body)).toEqual([['own', -1], ['one', 0]]);
  });

  test('what stands in one that is deleted stays, one level up', async () => {
    const outer = await make(teacher, 'Outer one'), inner = await make(teacher, 'Inner one', { parentId: outer.id });
    expect((await teacher.send('DELETE', `/api/collections/${outer.id}`)).status).toBe(204);
    expect((await outline()).collections.find((c) => c.id === inner.id)).toMatchObject({ name: 'Inner one', parentId: null });
  });

  test('what was deleted comes back as it was, for its owner and for thirty days', async () => {
    const outer = await make(teacher, 'Gone', { classId, may: 'add' }), inner = await make(teacher, 'Within', { parentId: outer.id });
    await teacher.send('POST', `/api/collections/${outer.id}/sources`, { sourceIds: [ids[0], ids[1]] });
    await teacher.send('DELETE', `/api/collections/${outer.id}`);
    const gone = await Promise.all([teacher, student].map((who) => who.send('GET', `/api/collections/${outer.id}`)));
    expect(gone.map((g) => g.status)).toEqual([404, 404]);
    expect((await student.send('POST', `/api/collections/${outer.id}/sources`, { sourceIds: [ids[2]] })).status).toBe(404);
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=in:gone')).body.total).toBe(0);
    expect((await student.send('POST', `/api/collections/${outer.id}/restore`, {})).status).toBe(404);
    const back = (await teacher.send<CollectionDetail>('POST', `/api/collections/${outer.id}/restore`, {})).body;
    expect([back.name, order(back), (await teacher.send<CollectionDetail>('GET', `/api/collections/${inner.id}`)).body.parentId]).toEqual(['Gone', [['one', -1], ['two', -1]], outer.id]);
    expect((await student.send('GET', `/api/collections/${outer.id}`)).status).toBe(200);
    // What stood in it and came to hold others meanwhile stands alone.
    await teacher.send('DELETE', `/api/collections/${outer.id}`);
    await make(teacher, 'Deepest', { parentId: inner.id });
    await teacher.send('POST', `/api/collections/${outer.id}/restore`, {});
    expect((await teacher.send<CollectionDetail>('GET', `/api/collections/${inner.id}`)).body.parentId).toBeNull();
    await teacher.send('DELETE', `/api/collections/${outer.id}`);
    removeExpired({ ...server.context, now: () => new Date(Date.now() + 31 * 86_400_000).toISOString() });
    expect((await teacher.send('POST', `/api/collections/${outer.id}/restore`, {})).status).toBe(404);
  });

  test('shared to be read they are; nobody outside sees them, and nobody sees sources that are not theirs', async () => {
    const made = await make(teacher, 'To read', { classId });
    await teacher.send('POST', `/api/collections/${made.id}/sources`, { sourceIds: [ids[2], ids[3]] });
    const seen = (await student.send<CollectionDetail>('GET', `/api/collections/${made.id}`)).body;
    expect([order(seen), seen.hidden, seen.owned]).toEqual([[['three', -1]], 1, false]);
    expect((await student.send('POST', `/api/collections/${made.id}/sources`, { sourceIds: [ids[0]] })).status).toBe(403);
    expect((await student.send('DELETE', `/api/collections/${made.id}`)).status).toBe(403);
    expect((await stranger.send('GET', `/api/collections/${made.id}`)).status).toBe(404);
    expect((await outline(stranger)).collections).toEqual([]);
    expect((await stranger.send('PUT', `/api/collections/${v7()}`, { name: 'x', classId })).status).toBe(403);
  });

  test('stand in another, one level deep', async () => {
    const outer = await make(teacher, 'Outer'), inner = await make(teacher, 'Inner', { parentId: outer.id });
    expect(inner.parentId).toBe(outer.id);
    expect((await teacher.send<Problem>('PUT', `/api/collections/${v7()}`, { name: 'Deeper', parentId: inner.id })).body.detail).toMatch(/no deeper/);
    expect((await teacher.send<Problem>('PUT', `/api/collections/${outer.id}`, { version: outer.version, name: 'Outer', parentId: outer.id })).status).toBe(400);
    await teacher.send('POST', `/api/collections/${inner.id}/sources`, { sourceIds: [ids[0]] });
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=in:outer')).body.total).toBe(1);
  });

  test('a class that sees the outer one is not told what stands in a private one within it', async () => {
    const outer = await make(teacher, 'Seen', { classId }), inner = await make(teacher, 'Unseen', { parentId: outer.id });
    await teacher.send('POST', `/api/collections/${outer.id}/sources`, { sourceIds: [ids[1]] });
    await teacher.send('POST', `/api/collections/${inner.id}/sources`, { sourceIds: [ids[0]] });
    const found = async (who: Client) => (await who.send<SourcePage>('GET', '/api/sources?q=in:seen')).body.sources.map((s) => s.id).toSorted();
    expect([await found(teacher), await found(student)]).toEqual([[ids[0], ids[1]].toSorted(), [ids[1]]]);
  });
});

test('a source tells which collections hold it, of those one sees', async () => {
  const mine = await make(teacher, 'Holds it'), holding = async (who: Client) => (await who.send<string[]>('GET', `/api/sources/${ids[2]}/collections`)).body;
  await teacher.send('POST', `/api/collections/${mine.id}/sources`, { sourceIds: [ids[2]] });
  expect([(await holding(teacher)).includes(mine.id), (await holding(student)).includes(mine.id), (await stranger.send('GET', `/api/sources/${ids[2]}/collections`)).status]).toEqual([true, false, 404]);
});

test('searches are kept with their counts, ordered, shared with a class, and refused when they cannot be read', async () => {
  const [short, unread] = [v7(), v7()];
  for (const [id, name, query, shared] of [[short, 'Short', 'minutes<10', classId], [unread, 'Unread', 'is:to-read -title:own', null]] as const) expect((await teacher.send('PUT', `/api/searches/${id}`, { name, query, classId: shared })).status).toBe(204);
  expect((await outline()).searches.map((s) => [s.name, s.count])).toEqual([['Short', 4], ['Unread', 3]]);
  await teacher.send('PUT', '/api/searches', { ids: [unread, short] });
  expect((await outline()).searches.map((s) => s.name)).toEqual(['Unread', 'Short']);
  expect((await outline(student)).searches).toMatchObject([{ name: 'Short', count: 3, owned: false, ownerName: 'Teacher' }]);
  expect((await teacher.send<Problem>('PUT', `/api/searches/${v7()}`, { name: 'Wrong', query: '(mud' })).body.code).toBe('query');
  expect([(await student.send('DELETE', `/api/searches/${short}`)).status, (await stranger.send('DELETE', `/api/searches/${short}`)).status, (await teacher.send('DELETE', `/api/searches/${short}`)).status]).toEqual([403, 404, 204]);
});

test('somebody new has searches to begin with, and all of them can be read', async () => {
  const fresh = await server.person('Beginner'), { searches } = await outline(fresh);
  expect(searches.map((s) => s.name)).toEqual(['Begun, not finished', 'Under ten minutes', 'Without a tag', 'Came this week']);
  await fresh.keepText('first', 'The first one.');
  expect((await outline(fresh)).searches.map((s) => s.count)).toEqual([0, 1, 1, 1]);
});

describe('many at once', () => {
  const send = (who: Client, changes: readonly object[]) => who.send<SourceChangesMade>('POST', '/api/sources/changes', { changes });
  const tagsOf = async (id: string) => (await teacher.send<SourceDetail>('GET', `/api/sources/${id}`)).body.tags.toSorted();

  test('what one may not do ends all, what is not there is named and passed over', async () => {
    expect((await send(teacher, [{ id: ids[0], state: 'finished', addTags: ['essay'] }, { id: ids[1], state: 'finished', addTags: ['essay', 'mud'] }])).status).toBe(200);
    const { states, tags } = await outline();
    expect([states.finished, tags]).toEqual([2, [{ tag: 'essay', count: 2 }, { tag: 'mud', count: 1 }]]);
    expect((await send(student, [{ id: ids[0], state: 'reading' }, { id: ids[0], deleted: true }])).status).toBe(403);
    expect((await outline(student)).states.reading).toBe(0);
    expect((await send(student, [{ id: ids[0], state: 'reading' }, { id: ids[3], state: 'reading' }])).body).toEqual({ undo: [{ id: ids[0], state: 'to_read', ifState: 'reading' }], missing: [ids[3]] });
    expect((await send(student, [{ id: ids[3], state: 'reading' }])).status).toBe(404);
    await send(student, [{ id: ids[0], state: 'to_read' }]);
  });

  test('taking a change back takes back what it changed, and nothing that was there before or came meanwhile', async () => {
    const [first, second] = [ids[0]!, ids[1]!];
    const { body } = await send(teacher, [{ id: first, state: 'reading', addTags: ['essay', 'late'], takeTags: ['mud'] }, { id: second, state: 'finished', addTags: ['late'], takeTags: ['mud'] }]);
    await teacher.send('PUT', `/api/sources/${first}/tags`, { tags: ['essay', 'late', 'meanwhile'] });
    await send(teacher, [{ id: first, state: 'set_aside' }]);
    expect((await send(teacher, body.undo)).status).toBe(200);
    expect([await tagsOf(first), await tagsOf(second)]).toEqual([['essay', 'meanwhile'], ['essay', 'mud']]);
    expect((await teacher.send<SourceDetail>('GET', `/api/sources/${first}`)).body.state).toBe('set_aside');
    await send(teacher, [{ id: first, state: 'finished', takeTags: ['meanwhile'] }]);
  });

  test('sharing with a class and putting into a collection are taken back only where they were new', async () => {
    const [first, second, last] = [ids[0]!, ids[1]!, ids[3]!], collection = v7();
    const classesOf = async (id: string) => (await teacher.send<SourceDetail>('GET', `/api/sources/${id}`)).body.classes.length;
    const inIt = async () => (await teacher.send<CollectionDetail>('GET', `/api/collections/${collection}`)).body.items.map((i) => [i.source.id, i.section]);
    expect([await classesOf(first), await classesOf(last)]).toEqual([1, 0]);
    const { body: shared } = await send(teacher, [first, last].map((id) => ({ id, shareWith: classId })));
    expect(shared.undo).toEqual([{ id: last, unshareFrom: classId }]);
    await send(teacher, shared.undo);
    expect([await classesOf(first), await classesOf(last)]).toEqual([1, 0]);
    const made = (await teacher.send<CollectionDetail>('PUT', `/api/collections/${collection}`, { name: 'In order' })).body;
    await send(teacher, [first, second, last].map((id) => ({ id, putInto: { collectionId: collection } })));
    const { version } = (await teacher.send<CollectionDetail>('GET', `/api/collections/${collection}`)).body;
    expect(version).toBeGreaterThan(made.version);
    await teacher.send('PUT', `/api/collections/${collection}/order`, { version, sections: ['Early'], items: [first, second, last].map((sourceId) => ({ sourceId, section: 0 })) });
    const before = await inIt(), taken = (await send(teacher, [{ id: second, takeFrom: collection }])).body;
    expect(await inIt()).toHaveLength(2);
    await send(teacher, taken.undo);
    expect(await inIt()).toEqual(before);
    expect((await send(teacher, [{ id: second, putInto: { collectionId: collection } }])).body.undo).toEqual([]);
    expect((await send(student, [{ id: first, putInto: { collectionId: collection } }])).status).toBe(404);
    await teacher.send('DELETE', `/api/collections/${collection}`);
  });

  test('what is deleted can be brought back for thirty days, and is gone for good after them', async () => {
    const gone = await teacher.keepText('to go', 'Gone with its files.'), files = server.context.db.get<{ n: number }>('SELECT count(*) AS n FROM blob')!.n;
    const { undo } = (await send(teacher, [{ id: gone, deleted: true }])).body;
    expect(undo).toEqual([{ id: gone, deleted: false }]);
    await send(teacher, undo);
    expect((await outline()).deleted).toBe(0);
    await send(teacher, [{ id: gone, deleted: true }]);
    expect([(await outline()).deleted, (await teacher.send<DeletedSource[]>('GET', '/api/sources/deleted')).body[0]]).toEqual([1, expect.objectContaining({ id: gone, title: 'To go' })]);
    const later = (days: number) => ({ ...server.context, now: () => new Date(Date.now() + days * 86_400_000).toISOString() });
    expect([removeExpired(later(29)).sources, removeExpired(later(31)).sources, removeExpired(later(31)).sources]).toEqual([0, 1, 0]);
    expect((await teacher.send('POST', `/api/sources/${gone}/restore`, {})).status).toBe(404);
    expect(server.context.db.get<{ n: number }>('SELECT count(*) AS n FROM blob')!.n).toBeLessThan(files);
    expect((await teacher.send<SourcePage>('GET', '/api/sources?q=files')).body.total).toBe(0);
  });
});

describe('tags', () => {
  let note: string;
  const tagsOf = async () => [(await teacher.send<SourceDetail>('GET', `/api/sources/${ids[2]}`)).body.tags.toSorted(), (await teacher.send<Annotation[]>('GET', `/api/sources/${ids[2]}/annotations`)).body.find((a) => a.id === note)!.tags.toSorted()];
  beforeAll(async () => {
    note = v7();
    const source = (await teacher.send<SourceDetail>('GET', `/api/sources/${ids[2]}`)).body;
    await teacher.send('PUT', `/api/annotations/${note}`, { sourceId: ids[2], versionId: source.versionId, kind: 'claim', note: 'The #marsh, its #marsh/edge and `#marsh`.', tags: ['marsh', 'marsh/edge'], anchor: { quote: { exact: 'text', prefix: '', suffix: '' }, position: { start: 4, end: 8 } }, classIds: [] });
    await teacher.send('PUT', `/api/sources/${ids[2]}/tags`, { tags: ['marsh', 'wet'] });
    await student.send('PUT', `/api/sources/${ids[2]}/tags`, { tags: ['marsh'] });
  });
  const change = (from: string, to: string, merge = false) => teacher.send<Problem>('POST', '/api/tags/change', { from, to, merge });

  test('are suggested by what a source says and by habit, one’s own alone', async () => {
    const about = await teacher.keepText('wet ground', 'The marsh is wet, and the edge of the marsh is wetter.');
    expect((await teacher.send<string[]>('GET', `/api/sources/${about}/tag-suggestions`)).body).toEqual(['wet', 'marsh', 'marsh/edge']);
    expect([(await student.send<string[]>('GET', `/api/sources/${ids[0]}/tag-suggestions`)).body, (await stranger.send('GET', `/api/sources/${about}/tag-suggestions`)).status]).toEqual([[], 404]);
    await teacher.send('DELETE', `/api/sources/${about}`);
  });
  test('are renamed with what is beneath them, onto a name that is in use as well, and only one’s own', async () => {
    expect((await teacher.send<TagPreview>('POST', '/api/tags/preview', { from: 'marsh', to: 'wet' })).body).toEqual({ sources: 1, annotations: 1, beneath: ['marsh/edge'], merges: ['wet'] });
    expect((await change('marsh', 'wet')).status).toBe(409);
    expect((await change('marsh', 'wet', true)).status).toBe(204);
    expect(await tagsOf()).toEqual([['wet', 'wet/edge'], ['wet', 'wet/edge']]);
    expect((await student.send<SourceDetail>('GET', `/api/sources/${ids[2]}`)).body.tags).toEqual(['marsh']);
  });
  test('keep their name in the words of notes and in kept searches', async () => {
    const search = v7(), words = async () => (await teacher.send<Annotation[]>('GET', `/api/sources/${ids[2]}/annotations`)).body.find((a) => a.id === note)!.note;
    await teacher.send('PUT', `/api/searches/${search}`, { name: 'Wet', query: 'tag:wet -#wet/edge wet' });
    expect(await words()).toBe('The #wet, its #wet/edge and `#marsh`.');
    await change('wet', 'damp');
    expect([await words(), (await outline()).searches.find((s) => s.id === search)!.query]).toEqual(['The #damp, its #damp/edge and `#marsh`.', 'tag:damp -#damp/edge wet']);
    await change('damp', 'wet');
    // Also a mark that is deleted just then: taking that back goes by the version it was deleted at.
    const { version } = (await teacher.send<Annotation[]>('GET', `/api/sources/${ids[2]}/annotations`)).body.find((a) => a.id === note)!;
    const gone = (await teacher.send<Annotation>('PATCH', `/api/annotations/${note}`, { version, deleted: true })).body;
    await change('wet', 'damp');
    expect((await teacher.send('PATCH', `/api/annotations/${note}`, { version: gone.version, deleted: false })).status).toBe(200);
    expect([await words(), (await tagsOf())[1]]).toEqual(['The #damp, its #damp/edge and `#marsh`.', ['damp', 'damp/edge']]);
    await change('damp', 'wet');
    await teacher.send('DELETE', `/api/searches/${search}`);
  });
  test('say which of those beneath become one with others, and refuse names that would be too long', async () => {
    await teacher.send('PUT', `/api/sources/${ids[1]}/tags`, { tags: ['dry', 'dry/edge', 'dry/rim'] });
    await teacher.send('PUT', `/api/sources/${ids[0]}/tags`, { tags: ['arid/edge'] });
    expect((await teacher.send<TagPreview>('POST', '/api/tags/preview', { from: 'dry', to: 'arid' })).body.merges).toEqual(['arid/edge']);
    expect((await change('dry', 'arid')).body.code).toBe('tag_in_use');
    expect((await change('dry', 'x'.repeat(58))).body.detail).toMatch(/#dry\/edge would become .* at most 60 characters/);
    // A new name may be the former one of another that moves as well.
    await teacher.send('PUT', `/api/sources/${ids[1]}/tags`, { tags: ['a/b', 'a/b/b', 'a/b/c'] });
    await change('a/b', 'a');
    expect((await teacher.send<SourceDetail>('GET', `/api/sources/${ids[1]}`)).body.tags.toSorted()).toEqual(['a', 'a/b', 'a/c']);
    for (const id of ids.slice(0, 2)) await teacher.send('PUT', `/api/sources/${id}/tags`, { tags: [] });
  });
  test('have a tint, one’s own alone, which goes where they go', async () => {
    const tint = (tag: string, to: string | null) => teacher.send<Problem>('PUT', '/api/tags/tint', { tag, tint: to }), tints = async (who: Client) => (await who.send<Record<string, string>>('GET', '/api/tags/tints')).body;
    expect([(await tint('wet', 'moss')).status, (await tint('wet/edge', 'clay')).status, await tints(teacher), await tints(student)]).toEqual([204, 204, { wet: 'moss', 'wet/edge': 'clay' }, {}]);
    await change('wet', 'damp');
    expect(await tints(teacher)).toEqual({ damp: 'moss', 'damp/edge': 'clay' });
    await change('damp', 'wet');
    await tint('wet', null);
    expect([await tints(teacher), (await tint('wet', 'gold')).status, (await server.nobody.send('GET', '/api/tags/tints')).status]).toEqual([{ 'wet/edge': 'clay' }, 400, 401]);
  });
  test('move up and down, never beneath themselves, and are taken away', async () => {
    await change('wet/edge', 'edge');
    expect(await tagsOf()).toEqual([['edge', 'wet'], ['edge', 'wet']]);
    expect((await change('wet', 'wet/deep')).body.detail).toMatch(/beneath itself/);
    await change('edge', 'wet/edge');
    await change('wet', '');
    expect(await tagsOf()).toEqual([[], []]);
    expect((await change('a'.repeat(10_000), 'b')).status).toBe(400);
  });
});
