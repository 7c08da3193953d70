import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Parser } from 'commonmark';
import { v7 } from 'uuid';
import { parse } from 'yaml';
import type { ClassDetail, ClassRow, Problem, SourceDetail, SourcePage } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let owner: Client;
let mate: Client;
let classId: string;
let id: string;
let source: SourceDetail;
beforeAll(async () => {
  server = await startServer();
  [owner, mate] = [await server.person('Owner'), await server.person('Mate')];
  classId = v7();
  await owner.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'moss' });
  const { body } = await owner.send<ClassDetail>('GET', `/api/classes/${classId}`);
  await mate.send('POST', '/api/classes/join', { code: body.code });
  id = await owner.keepText('tide', 'The tide\n\nThe tide turns at seven. Nobody sees it turn.');
  await owner.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  source = (await owner.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
});
afterAll(() => server.close());

const mark = (by: Client, exact: string, note: string, classIds: string[] = []) => {
  const start = 'The tide\nThe tide turns at seven. Nobody sees it turn.'.indexOf(exact);
  return by.send('PUT', `/api/annotations/${v7()}`, {
    sourceId: id,
    versionId: source.versionId,
    kind: 'claim',
    note,
    tags: ['turn'],
    anchor: { quote: { exact, prefix: '', suffix: '' }, position: { start, end: start + exact.length } },
    classIds,
  });
};

describe('what is known of a source', () => {
  test('can be corrected by its owner; a stale correction shows what stands', async () => {
    const changed = await owner.send<SourceDetail>('PATCH', `/api/sources/${id}`, {
      version: 1,
      title: 'The Turning Tide',
      author: 'O. Farrant',
    });
    expect(changed.body).toMatchObject({ title: 'The Turning Tide', author: 'O. Farrant', version: 2 });
    const late = await owner.send<Problem>('PATCH', `/api/sources/${id}`, { version: 1, title: 'Other' });
    expect([late.status, (late.body.current as SourceDetail).title]).toEqual([409, 'The Turning Tide']);
    expect((await owner.send<SourcePage>('GET', '/api/sources?q=turning')).body.sources).toHaveLength(1);
  });

  test('tags and state are each reader’s own', async () => {
    await mate.send('PUT', `/api/sources/${id}/tags`, { tags: ['mine', 'Mine'] });
    await mate.send('PUT', `/api/sources/${id}/shelf`, { state: 'finished' });
    const seen = async (who: Client) => {
      const { body } = await who.send<SourceDetail>('GET', `/api/sources/${id}`);
      return [body.tags, body.state, body.owned];
    };
    expect(await seen(mate)).toEqual([['mine'], 'finished', false]);
    expect(await seen(owner)).toEqual([[], 'to_read', true]);
  });

  test('reading position and what was read come back', async () => {
    await mate.send('PUT', `/api/sources/${id}/shelf`, { spans: [[0, 8]], position: 9 });
    expect((await mate.send<SourceDetail>('GET', `/api/sources/${id}`)).body).toMatchObject({
      spans: [[0, 8]],
      position: 9,
      state: 'finished',
    });
  });

  test('deleting hides it from everybody, with its marks, and can be taken back by its owner alone', async () => {
    expect((await mate.send('DELETE', `/api/sources/${id}`)).status).toBe(403);
    await owner.send('DELETE', `/api/sources/${id}`);
    expect([
      (await mate.send('GET', `/api/sources/${id}`)).status,
      (await owner.send('GET', `/api/sources/${id}`)).status,
    ]).toEqual([404, 404]);
    expect((await mate.send('POST', `/api/sources/${id}/restore`, {})).status).toBe(404);
    expect((await owner.send('POST', `/api/sources/${id}/restore`, {})).status).toBe(204);
    expect((await mate.send('GET', `/api/sources/${id}`)).status).toBe(200);
  });
});

describe('taking out', () => {
  beforeAll(async () => {
    await mark(owner, 'Nobody sees it turn.', 'Second', [classId]);
    await mark(owner, 'The tide turns', 'First **bold**');
    await mark(mate, 'at seven', 'Not mine', [classId]);
  });

  test('mine alone, in document order, with a front matter a YAML library reads', async () => {
    const { text, headers } = await owner.send('GET', `/api/sources/${id}/study-notes.md`);
    expect(headers['content-type']).toBe('text/markdown; charset=utf-8');
    expect(headers['content-disposition']).toContain('filename="the-turning-tide.md"');
    const [, front, body] = text.split(/^---\n/m);
    expect(parse(front!)).toMatchObject({
      title: 'The Turning Tide',
      author: 'O. Farrant',
      kept: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    });
    expect(text.indexOf('> The tide turns')).toBeLessThan(text.indexOf('> Nobody sees it turn.'));
    expect(text).not.toContain('Not mine');
    const walker = new Parser().parse(body!).walker();
    const kinds = new Map<string, number>();
    for (let step = walker.next(); step; step = walker.next())
      if (step.entering) kinds.set(step.node.type, (kinds.get(step.node.type) ?? 0) + 1);
    expect([kinds.get('block_quote'), kinds.get('heading'), kinds.get('strong')]).toEqual([2, 1, 1]);
  });

  test('all that I see, under the names of those who wrote it', async () => {
    expect((await owner.send('GET', `/api/sources/${id}/study-notes.md?whose=all`)).text).toMatch(
      /> at seven\n\n§ \[\*Claim\*\]\(\S+\) · Mate\n\nNot mine/,
    );
    expect((await mate.send('GET', `/api/sources/${id}/study-notes.md?whose=all`)).text).not.toContain(
      'First **bold**',
    );
  });

  test('as W3C annotations, in the media type of the protocol (Web Annotation Protocol, 3.1)', async () => {
    const { body, headers } = await owner.send<Record<string, unknown>[]>(
      'GET',
      `/api/sources/${id}/annotations.jsonld`,
    );
    expect(headers['content-type']).toContain('profile="http://www.w3.org/ns/anno.jsonld"');
    expect(body).toHaveLength(2);
    expect(
      body.every(
        (a) =>
          a['@context'] === 'http://www.w3.org/ns/anno.jsonld' &&
          a.type === 'Annotation' &&
          Boolean(a.target) &&
          Boolean(a.id),
      ),
    ).toBe(true);
  });
});

describe('a snapshot', () => {
  test('is served sealed: no script, no form, no network, sandboxed', async () => {
    const { headers, text } = await owner.send('GET', `/snapshots/${source.versionId}/`);
    const policy = String(headers['content-security-policy']);
    for (const part of [
      "default-src 'none'",
      "script-src 'none'",
      "form-action 'none'",
      "base-uri 'none'",
      "frame-ancestors 'self'",
      'sandbox allow-same-origin',
    ])
      expect(policy).toContain(part);
    expect(policy).not.toMatch(/connect-src|allow-scripts|\*/);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(text).toContain('The tide turns at seven.');
  });

  test('gives no asset that is not its own', async () => {
    expect((await owner.send('GET', `/snapshots/${source.versionId}/asset/${'0'.repeat(64)}`)).status).toBe(404);
  });
});

describe('classes', () => {
  test('a class counts what is shared with it, and shows its code to teachers alone', async () => {
    const [row] = (await mate.send<ClassRow[]>('GET', '/api/classes')).body;
    expect(row).toMatchObject({ name: 'Field Course', role: 'student', people: 2, sources: 1, annotations: 2 });
    expect((await mate.send<ClassDetail>('GET', `/api/classes/${classId}`)).body.code).toBeNull();
    const { body } = await owner.send<ClassDetail>('GET', `/api/classes/${classId}`);
    expect([body.code!.length, body.members.map((m) => [m.name, m.annotations]), body.readings.length]).toEqual([
      6,
      [
        ['Owner', 1],
        ['Mate', 1],
      ],
      1,
    ]);
  });

  test('joining twice is joining once; nobody else sees the class', async () => {
    const { body } = await owner.send<ClassDetail>('GET', `/api/classes/${classId}`);
    await mate.send('POST', '/api/classes/join', { code: body.code });
    expect((await owner.send<ClassDetail>('GET', `/api/classes/${classId}`)).body.people).toBe(2);
    const outsider = await server.person('Outsider');
    expect([
      (await outsider.send('GET', `/api/classes/${classId}`)).status,
      (await outsider.send('PUT', `/api/classes/${classId}/sources/${id}`, {})).status,
    ]).toEqual([404, 403]);
  });

  test('a student does not hand a teacher’s source on to another class', async () => {
    const other = v7();
    const pupil = await server.person('Pupil');
    await pupil.send('PUT', `/api/classes/${other}`, { name: 'Pupils', tint: 'clay' });
    const { body } = await owner.send<ClassDetail>('GET', `/api/classes/${classId}`);
    await pupil.send('POST', '/api/classes/join', { code: body.code });
    const third = await server.person('Third');
    await third.send('POST', '/api/classes/join', {
      code: (await pupil.send<ClassDetail>('GET', `/api/classes/${other}`)).body.code,
    });
    expect((await third.send('PUT', `/api/classes/${other}/sources/${id}`, {})).status).toBe(404);
  });
});
