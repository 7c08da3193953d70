import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { excerptsOf } from '@avrelle/core/study';
import type {
  Annotation,
  ExcerptsPut,
  Problem,
  SourceDetail,
  StudyCandidates,
  StudyNote,
  StudyNoteRow,
} from '@avrelle/core/wire';
import { removeExpired } from '../library/remove-expired';
import { versionText } from '../sources/queries';
import { makeReadingClass } from '../testing/classes';
import { putTideMark } from '../testing/tide-mark';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let me: Client;
let now = '2026-11-20T08:00:00.000Z';
const TEXT = 'The tide turns at seven.\n\nThe pegs rose by 96 mm.\n\nNobody sees the creek turn.';
beforeAll(async () => {
  server = await startServer({ now: () => now });
  me = await server.person('Ines Kestle');
});
afterAll(() => server.close());

const kept = async (title: string, author = 'Oona Farrant'): Promise<SourceDetail> => {
  const id = await me.keepText(title, `${TEXT}\n\n${title}.`);
  const { version } = (await me.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  await me.send('PATCH', `/api/sources/${id}`, { version, author, publishedAt: '2026-10-02' });
  return (await me.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
};
const mark = async (who: Client, source: SourceDetail, words: string, more: object = {}): Promise<string> => {
  const text = versionText(server.context.db, source.versionId)!.stream;
  const start = text.indexOf(words);
  const end = start + words.length;
  const id = v7();
  const { status, text: said } = await who.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'claim',
    note: '',
    tags: [],
    anchor: {
      quote: { exact: words, prefix: text.slice(Math.max(0, start - 10), start), suffix: text.slice(end, end + 10) },
      position: { start, end },
    },
    classIds: [],
    ...more,
  });
  expect([status, said.slice(0, 200)]).toEqual([200, expect.stringContaining(id)]);
  return id;
};
const list = async (who = me): Promise<StudyNoteRow[]> => (await who.send<StudyNoteRow[]>('GET', '/api/notes')).body;
const ofSource = async (source: SourceDetail): Promise<StudyNote> =>
  (await me.send<StudyNote>('POST', `/api/sources/${source.id}/note`)).body;
const open = async (id: string): Promise<StudyNote> => (await me.send<StudyNote>('GET', `/api/notes/${id}`)).body;
const patch = async (note: StudyNote, body: object) =>
  me.send<StudyNote & Problem>('PATCH', `/api/notes/${note.id}`, { version: note.version, ...body });
const own = async (title: string, markdown = ''): Promise<StudyNote> =>
  (await me.send<StudyNote>('PUT', `/api/notes/${v7()}`, { title, markdown })).body;
const change = async (id: string, body: object): Promise<void> => {
  const { version } = (await me.send<Annotation>('GET', `/api/annotations/${id}`)).body;
  expect((await me.send('PATCH', `/api/annotations/${id}`, { version, ...body })).status).toBe(200);
};
const standing = (note: StudyNote): string[] => excerptsOf(note.markdown).map((e) => e.annotationId);

describe('the note of a source', () => {
  test('is there with the first mark, fills itself in order of place, and names its source', async () => {
    const source = await kept('The Marsh That Walks Inland');
    const later = await mark(me, source, 'pegs rose', { note: 'So **3.2** a year.', tags: ['essay'] });
    const [row] = await list();
    expect(row).toMatchObject({ title: source.title, sourceId: source.id, excerpts: 1, words: 0 });
    const first = await mark(me, source, 'tide turns');
    const note = await ofSource(source);
    expect([note.id, standing(note)]).toEqual([row!.id, [first, later]]);
    expect(note.markdown).toContain(
      `§ [Farrant 2026, ¶ 2](avrelle:annotation/${later}) #essay\n>\n> So **3.2** a year.`,
    );
    expect(note.references).toEqual([{ sourceId: source.id, words: expect.stringContaining('Oona Farrant (2026).') }]);
    expect(note.excerpts.map(({ state, kind }) => [state, kind?.code])).toEqual([
      ['follows', 'claim'],
      ['follows', 'claim'],
    ]);
  });

  test('follows what is changed, keeps what I wrote and shortened, and says what is gone', async () => {
    const source = await kept('Follows');
    const [a, b] = [await mark(me, source, 'tide turns'), await mark(me, source, 'pegs rose by 96 mm')];
    const before = await ofSource(source);
    const mine = `# Why\n\n${before.markdown.replace('rose by', '[…]')}\nMy own words.\n`;
    const written = (await patch(before, { markdown: mine })).body;
    expect([written.words, written.markdown]).toEqual([4, mine]);
    await change(a, { note: 'At seven!' });
    await change(b, { note: 'Measured.' });
    const after = await open(before.id);
    expect(after.markdown).toBe(mine.replace(/(annotation\/[^)]+\))(\n\n)/, '$1\n>\n> At seven!$2'));
    const touched = after.excerpts.find((e) => e.annotationId === b)!;
    expect([touched.state, touched.newer]).toEqual(['changed', expect.stringContaining('> Measured.')]);
    const settled = (await patch(after, { settled: [b] })).body;
    expect(settled.excerpts.map((e) => e.state)).toEqual(['follows', 'follows']);
    await change(a, { deleted: true });
    const left = await open(before.id);
    expect(left.markdown).toBe(after.markdown);
    expect(left.excerpts.find((e) => e.annotationId === a)).toMatchObject({
      state: 'deleted',
      kind: { code: 'claim' },
    });
  });

  test('what is taken out of it stays out, and can be put in again, once', async () => {
    const source = await kept('Once');
    const [a, b] = [await mark(me, source, 'tide turns'), await mark(me, source, 'pegs rose')];
    const note = await ofSource(source);
    const without = (await patch(note, { markdown: note.markdown.slice(note.markdown.indexOf('> pegs')) })).body;
    expect(standing(await open(without.id))).toEqual([b]);
    const found = await me.send<StudyCandidates>('GET', `/api/notes/${note.id}/candidates`);
    expect(found.body).toMatchObject({ total: 1, candidates: [{ id: a, reference: 'Farrant 2026, ¶ 1' }] });
    const put = () => me.send<ExcerptsPut>('POST', `/api/notes/${note.id}/excerpts`, { annotationIds: [a, b] });
    const { body } = await put();
    expect([body.put, standing(body.note)]).toEqual([[a], [a, b]]);
    expect((await put()).body.put).toEqual([]);
    expect((await open(note.id)).markdown).toBe(body.note.markdown);
  });

  test('takes only the kinds I choose, or what I put there; turning it off and on doubles nothing', async () => {
    const source = await kept('Chosen');
    const a = await mark(me, source, 'tide turns');
    const off = (await patch(await ofSource(source), { joins: 'put' })).body;
    const doubt = await mark(me, source, 'creek', { kind: 'doubt' });
    const claim = await mark(me, source, 'pegs');
    expect(standing(await open(off.id))).toEqual([a]);
    const kinds = (await patch(await open(off.id), { joins: 'all', kinds: ['doubt'] })).body;
    expect(standing(kinds)).toEqual([a, doubt]);
    expect(standing((await patch(kinds, { kinds: [] })).body)).toEqual([a, claim, doubt]);
  });

  test('keeps the answers that have my star, that a teacher recommends, or that are mine', async () => {
    const mate = await server.person('Tomas Rell');
    const { id: classId, sourceId, versionId } = await makeReadingClass(mate, me);
    const root = await putTideMark(me, { id: classId, sourceId, versionId });
    const answer = async (who: Client, note: string): Promise<string> => {
      const id = v7();
      await who.send('PUT', `/api/replies/${id}`, { parentId: root, note });
      return id;
    };
    const starred = await answer(mate, 'The same at mine.');
    await answer(mate, 'Hm.');
    await answer(me, 'And here.');
    await me.send('PUT', `/api/annotations/${starred}/star`, { starred: true });
    const { markdown } = (await me.send<StudyNote>('POST', `/api/sources/${sourceId}/note`)).body;
    expect(markdown).toContain('> - **Tomas Rell:** The same at mine.\n> - **Ines Kestle:** And here.');
    expect(markdown).not.toContain('Hm.');
    // What somebody else marked bears their name.
    const theirs = await putTideMark(mate, { id: classId, sourceId, versionId });
    const { id } = await own('Of others');
    await me.send('POST', `/api/notes/${id}/excerpts`, { annotationIds: [theirs] });
    expect((await open(id)).markdown).toContain(`annotation/${theirs}) · Tomas Rell`);
  });
});

describe('a note of my own', () => {
  test('takes excerpts of many sources, found by a search, each once', async () => {
    const [one, two] = [await kept('First'), await kept('Second', 'Jory Oake')];
    const ids = [
      await mark(me, one, 'tide turns', { tags: ['gate'] }),
      await mark(me, two, 'pegs rose', { tags: ['gate'] }),
    ];
    const note = await own('For the essay', 'It begins.\n');
    const found = async () =>
      (await me.send<StudyCandidates>('GET', `/api/notes/${note.id}/candidates?q=tag:gate`)).body;
    const { candidates, total } = await found();
    expect([total, candidates.map((c) => c.id).sort()]).toEqual([2, [...ids].sort()]);
    const put = candidates.find((c) => c.id === ids[1])!;
    const written = (await patch(note, { markdown: `It begins.\n\n${put.excerpt}\n\nIt ends.\n` })).body;
    expect(written.excerpts).toMatchObject([{ annotationId: ids[1], state: 'follows', sourceId: two.id }]);
    expect((await found()).candidates.map((c) => c.id)).toEqual([ids[0]]);
    const more = (await me.send<ExcerptsPut>('POST', `/api/notes/${note.id}/excerpts`, { annotationIds: ids })).body;
    expect(more.put).toEqual([ids[0]]);
    expect(more.note.markdown).toMatch(/It ends\.\n\n> tide turns\n/);
    expect(more.note.references.map((r) => r.sourceId).sort()).toEqual([one.id, two.id].sort());
  });

  test('is written over what stands there now only: another version comes back whole', async () => {
    const note = await own('Two windows', 'One.\n');
    const first = (await patch(note, { markdown: 'One.\n\nTwo.\n' })).body;
    const { status, body } = await patch(note, { markdown: 'None.\n' });
    expect([status, body.code, (body.current as StudyNote).markdown]).toEqual([409, 'stale', 'One.\n\nTwo.\n']);
    expect((await patch(first, { title: ' ' })).status).toBe(400);
  });

  test('sent again it is the same; an id of somebody else’s is refused', async () => {
    const id = v7();
    const put = (who: Client) => who.send<StudyNote>('PUT', `/api/notes/${id}`, { title: 'Twice', markdown: 'Mud.' });
    const [first, second] = [await put(me), await put(me)];
    expect([first.status, second.body]).toEqual([200, first.body]);
    expect((await put(await server.person('Other'))).status).toBe(409);
  });

  test('is deleted, brought back, and gone for good after thirty days', async () => {
    const note = await own('Gone', 'secret-of-the-sluice');
    const gone = (await patch(note, { deleted: true })).status;
    expect([gone, (await list()).some((n) => n.id === note.id)]).toEqual([200, false]);
    expect((await me.send('GET', `/api/notes/${note.id}`)).status).toBe(404);
    const back = (await me.send<StudyNote>('POST', `/api/notes/${note.id}/restore`)).body;
    expect(back.markdown).toBe('secret-of-the-sluice');
    await patch(back, { deleted: true });
    now = '2026-12-21T09:00:00.000Z';
    removeExpired(server.context);
    now = '2026-11-20T08:00:00.000Z';
    expect((await me.send('POST', `/api/notes/${note.id}/restore`)).status).toBe(404);
    expect(server.context.db.raw.serialize().includes('secret-of-the-sluice')).toBe(false);
  });

  test('goes out as Markdown with addresses that lead back', async () => {
    const source = await kept('Out');
    const id = await mark(me, source, 'tide turns');
    const note = await own('Out it goes', 'Words.');
    await me.send('POST', `/api/notes/${note.id}/excerpts`, { annotationIds: [id] });
    const { text, headers } = await me.send('GET', `/api/notes/${note.id}/note.md`);
    expect(headers['content-disposition']).toContain('out-it-goes.md');
    expect(text.replace(/http[^)]*\/to\//, '/to/')).toContain(
      `# Out it goes\n\nWords.\n\n> tide turns\n>\n> § [Farrant 2026, ¶ 1](/to/annotation/${id})`,
    );
  });
});

describe('nobody else', () => {
  test('has my notes, nor may put what they do not see', async () => {
    const other = await server.person('Stranger');
    const source = await kept('Secret');
    const id = await mark(me, source, 'tide turns');
    await ofSource(source);
    expect(await list(other)).toEqual([]);
    const theirs = v7();
    await other.send('PUT', `/api/notes/${theirs}`, { title: 'Mine', markdown: '' });
    expect((await other.send('POST', `/api/notes/${theirs}/excerpts`, { annotationIds: [id] })).status).toBe(404);
    const forged = `> words\n>\n> § [X](avrelle:annotation/${id})\n`;
    const { version } = (await other.send<StudyNote>('GET', `/api/notes/${theirs}`)).body;
    const { body } = await other.send<StudyNote>('PATCH', `/api/notes/${theirs}`, { version, markdown: forged });
    expect(body.excerpts).toEqual([{ annotationId: id, state: 'deleted', sourceId: null, kind: null, newer: null }]);
    expect(JSON.stringify(body)).not.toContain('tide turns');
  });
});
