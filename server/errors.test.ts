import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import type { JoinLink, Problem, SourceDetail } from '@avrelle/core/wire';
import type { LittleWeb } from '../standins/web/serve';
import { ERRORS, type ErrorCode } from './errors';
import { ingest } from './ingest/ingest';
import { SafeFetcher } from './ingest/safe-fetch';
import { PoolIngester } from './ingest/pool-ingester';
import { readFeed } from './ingest/feed';
import { unzip } from './ingest/unzip';
import { docx, epub, pdf, PIXEL, wave, zip } from './testing/files';
import { makeClass, showRoster } from './testing/classes';
import { answered, refused } from './testing/refused';
import { tideMark } from './testing/tide-mark';
import { littleWeb, startServer, type Client, type Server } from './testing/harness';

let server: Server;
let closed: Server;
let web: LittleWeb;
let admin: Client;
let teacher: Client;
let student: Client;
let stranger: Client;
let classId: string;
let sourceId: string;
let source: SourceDetail;
let mark: string;

beforeAll(async () => {
  web = await littleWeb();
  server = await startServer();
  closed = await startServer({ env: { AVRELLE_SIGN_UP: 'no' } });
  await closed.person('Admin');
  admin = await server.person('Office');
  teacher = await server.person('Teacher');
  student = await server.person('Student');
  stranger = await server.person('Stranger');
  classId = await makeClass(teacher, 'Field Course', student);
  sourceId = await teacher.keepText('tide', 'The tide turns at seven.');
  source = (await teacher.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  mark = v7();
  await teacher.send('PUT', `/api/annotations/${mark}`, put());
  await teacher.send('PUT', `/api/classes/${classId}/sources/${sourceId}`, {});
});
afterAll(async () => {
  await Promise.all([server, closed, web].map((one) => one.close()));
});

const put = (more: object = {}) => tideMark(sourceId, source.versionId, more);
const policy = () => ({ names: [{ suffix: 'saltmere.test', host: '127.0.0.1', port: web.port }], privateHosts: [] });
const trouble = (path: string) => () =>
  refused(ingest({ type: 'address', address: `http://trouble.saltmere.test/${path}` }, policy()));
const address = (text: string) => () => refused(ingest({ type: 'address', address: text }, policy()));
const file =
  (name: string, ...bytes: number[]) =>
  () =>
    keepFile(name, Buffer.from(bytes));
const keepFile = (name: string, bytes: Uint8Array): Promise<string> =>
  refused(ingest({ type: 'file', name, bytes }, policy()));
const inject = (options: object): Promise<string> =>
  answered(server.app.inject(options).then((a) => ({ status: a.statusCode, body: a.json(), headers: a.headers })));

const withToken = async (method: string, url: string): Promise<string> => {
  const asked = { name: 'A program', scope: 'read', days: 7 };
  const made = await teacher.send<{ token: string }>('PUT', `/api/account/tokens/${v7()}`, asked);
  return inject({ method, url, headers: { authorization: `Bearer ${made.body.token}` } });
};

/** What is met while the reading is set so. */
async function whileSet(set: object, ask: (url: string) => Parameters<typeof answered>[0]): Promise<string> {
  const url = `/api/classes/${classId}/assignments/${sourceId}`;
  await teacher.send('PUT', url, set);
  const met = await answered(ask(url));
  await teacher.send('DELETE', url);
  return met;
}

/** One way to meet each row of the table. A new row without one does not compile. */
const WAYS: Readonly<Record<ErrorCode, () => Promise<string>>> = {
  empty_file: file('nothing.txt'),
  wrong_content: file('survey.pdf', 0, 1, 2, 3),
  cut_off: () => keepFile('gate.png', PIXEL.subarray(0, PIXEL.length - 12)),
  bad_archive: file('page.zip', ...Buffer.from('PK\x03\x04 and no more')),
  archive_too_large: async () =>
    refused(unzip(await zip({ 'a.html': 'a'.repeat(5000) }), 'a.zip', { entries: 9, bytes: 100 })),
  locked_archive: async () => {
    const bytes = await zip({ 'a.html': 'a' });
    for (const at of [bytes.indexOf('PK\x01\x02') + 8, 6]) bytes[at] = 1;
    return refused(unzip(bytes, 'a.zip'));
  },
  no_page_inside: async () => keepFile('page.zip', await zip({ 'a.txt': 'a' })),
  bad_table: file('a.csv', ...Buffer.from('a,b\n"x,1')),
  too_many_rows: async () => keepFile('a.csv', Buffer.from('a,b\n'.repeat(20_002))),
  bad_pdf: file('a.pdf', ...Buffer.from('%PDF-1.7 and no more')),
  too_many_pages: async () =>
    keepFile(
      'a.pdf',
      await pdf((doc) => {
        for (let n = 0; n < 2000; n++) doc.addPage();
      }),
    ),
  password_needed: async () => keepFile('a.pdf', await pdf((doc) => doc.text('x'), { userPassword: 'a' })),
  password_mismatch: async () =>
    refused(
      ingest(
        { type: 'file', name: 'a.pdf', bytes: await pdf((doc) => doc.text('x'), { userPassword: 'a' }), password: 'b' },
        policy(),
      ),
    ),
  bad_book: async () => keepFile('a.epub', await epub({ 'OEBPS/book.opf': undefined })),
  locked_book: async () => keepFile('a.epub', await epub({ 'META-INF/rights.xml': '<rights/>' })),
  bad_document: async () => keepFile('a.docx', await docx([['', '&broken;']])),
  bad_letter: file('a.eml', ...Buffer.from('no letter')),
  bad_transcript: () =>
    refused(
      ingest(
        { type: 'file', name: 'a.wav', bytes: wave(), transcript: { name: 'a.vtt', bytes: Buffer.from('no times') } },
        policy(),
      ),
    ),
  no_recording: file('a.vtt', ...Buffer.from('WEBVTT')),
  no_addresses: () => answered(teacher.send('POST', '/api/lists', { id: v7(), text: 'none here' })),
  suspended: async () => {
    const { me } = await server.person('Suspended');
    await admin.send('PUT', `/api/people/${me.id}/suspension`);
    const asked = { email: me.email, password: 'a long enough password' };
    return answered(server.nobody.send('POST', '/api/session', asked));
  },
  administrators_only: () => answered(student.send('GET', '/api/people')),
  own_account: () => answered(admin.send('PUT', `/api/people/${admin.me.id}/suspension`)),
  bad_token: () => inject({ method: 'GET', url: '/api/sources', headers: { authorization: 'Bearer unknown' } }),
  token_scope: () => withToken('DELETE', `/api/sources/${sourceId}`),
  browser_only: () => withToken('GET', '/api/account/tokens'),
  wrong_link: () => answered(stranger.send('GET', '/api/join-link?link=not-a-link-of-ours')),
  link_over: async () => {
    const { body } = await teacher.send<JoinLink>('PUT', `/api/classes/${classId}/links/${v7()}`, { uses: 1 });
    await (await server.person('The only one')).send('POST', '/api/join-link', { link: body.token });
    return answered(stranger.send('POST', '/api/join-link', { link: body.token }));
  },
  no_people_listed: () => answered(showRoster(server, teacher, classId, 'Ines Kestle')),
  too_many_people: () => answered(showRoster(server, teacher, classId, 'P,p@saltmere.test\n'.repeat(10_001))),
  not_in_group: () => answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ groupIds: [v7()] }))),
  class_archived: async () => {
    const id = await makeClass(teacher, 'Archived');
    await teacher.send('PUT', `/api/classes/${id}/archived`, { archived: true });
    return answered(teacher.send('PUT', `/api/classes/${id}/sources/${sourceId}`));
  },
  last_teacher: () => answered(teacher.send('DELETE', `/api/classes/${classId}/membership`)),
  list_full: () => {
    const many = 'WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 500)';
    const searches = "INSERT INTO saved_search (id, owner_id, name, query, position) SELECT i, ?, i, 'marsh', i FROM n";
    server.context.db.run(`${many} ${searches}`, stranger.me.id);
    return answered(stranger.send('PUT', `/api/searches/${v7()}`, { name: 'One more', query: 'marsh' }));
  },
  too_many_addresses: () =>
    answered(
      teacher.send('POST', '/api/lists', {
        id: v7(),
        text: Array.from({ length: 501 }, (_, n) => `http://a.saltmere.test/${n}`).join('\n'),
      }),
    ),
  still_running: async () => {
    const id = v7();
    await teacher.send('POST', '/api/lists', { id, text: 'http://10.0.0.1/' });
    server.context.db.raw.prepare("UPDATE job SET state = 'running' WHERE batch_id = ?").run(id);
    return answered(teacher.send('DELETE', `/api/lists/${id}`));
  },
  robots_refuse: () =>
    refused(ingest({ type: 'address', address: 'http://packet.saltmere.test/private/ledger', polite: true }, policy())),
  no_feed: () => refused(readFeed('http://trouble.saltmere.test/feed-that-is-html', policy())),
  bad_feed: () => refused(readFeed('http://trouble.saltmere.test/broken-feed', policy())),
  bad_range: async () => {
    const kept = await teacher.keepFile('gate.png', PIXEL);
    const { body } = await teacher.send<SourceDetail>('GET', `/api/sources/${kept.sourceId}`);
    return inject({
      method: 'GET',
      url: `/files/${body.versionId}`,
      headers: { cookie: teacher.cookie, range: 'bytes=99999-' },
    });
  },
  not_a_picture: () =>
    inject({
      method: 'PUT',
      url: `/api/sources/${sourceId}/picture?from=${'a'.repeat(64)}`,
      headers: { cookie: teacher.cookie, 'content-type': 'image/png' },
      payload: PIXEL,
    }),
  picture_changed: async () => {
    const kept = await teacher.keepFile('sluice.png', PIXEL, { fields: { apart: 'yes' } });
    return inject({
      method: 'PUT',
      url: `/api/sources/${kept.sourceId}/picture?from=${'a'.repeat(64)}`,
      headers: { cookie: teacher.cookie, 'content-type': 'image/png' },
      payload: PIXEL,
    });
  },
  no_address: () => answered(teacher.send('POST', `/api/sources/${sourceId}/again`, { id: v7() })),
  one_version: () => answered(teacher.send('GET', `/api/sources/${sourceId}/changes`)),
  old_version: () =>
    answered(teacher.send('PUT', `/api/annotations/${mark}/place`, { versionId: v7(), start: 0, end: 3 })),
  query: () => answered(teacher.send('GET', '/api/sources?q=(tide')),
  invalid: () => answered(teacher.send('PUT', '/api/annotations/not-an-id', put())),
  not_found: () => answered(stranger.send('GET', `/api/sources/${sourceId}`)),
  foreign_origin: () =>
    inject({
      method: 'POST',
      url: '/api/session',
      headers: { origin: 'http://elsewhere.test', host: 'avrelle.test' },
      payload: {},
    }),
  too_fast: async () => {
    for (let n = 0; n < 20; n++)
      await server.app.inject({
        method: 'POST',
        url: '/api/session',
        remoteAddress: '10.7.7.7',
        payload: { email: 'a@b.test', password: 'wrong' },
      });
    return inject({
      method: 'POST',
      url: '/api/session',
      remoteAddress: '10.7.7.7',
      payload: { email: 'a@b.test', password: 'wrong' },
    });
  },
  too_many_streams: () => {
    const leave = Array.from({ length: 24 }, () =>
      server.context.streams.add({ personId: stranger.me.id, session: 'x', end: () => undefined }),
    );
    return answered(stranger.send('GET', '/api/events')).finally(() => leave.forEach((go) => go()));
  },
  busy: async () => {
    const held = await startServer();
    const somebody = await held.person('Somebody');
    held.context.db.transaction = () => {
      throw Object.assign(new Error('database is locked'), { code: 'SQLITE_BUSY' });
    };
    return answered(somebody.send('PUT', `/api/classes/${v7()}`, { name: 'Late', tint: 'tide' })).finally(() =>
      held.close(),
    );
  },
  broken: async () => {
    const dead = await startServer();
    const somebody = await dead.person('Somebody');
    dead.context.db.raw.exec('DROP VIEW source_visible');
    const silent = console.error;
    console.error = () => undefined;
    const code = await answered(somebody.send('GET', '/api/sources'));
    console.error = silent;
    await dead.close();
    return code;
  },
  signed_out: () => answered(server.nobody.send('GET', '/api/sources')),
  wrong_password: () =>
    inject({
      method: 'POST',
      url: '/api/session',
      payload: { email: 'teacher@college.saltmere.test', password: 'wrong' },
    }),
  common_password: () =>
    inject({
      method: 'POST',
      url: '/api/people',
      payload: { email: 'weak@college.saltmere.test', name: 'T', password: 'password1234' },
    }),
  email_taken: () =>
    inject({
      method: 'POST',
      url: '/api/people',
      payload: { email: 'TEACHER@college.saltmere.test', name: 'T', password: 'long enough words' },
    }),
  sign_up_closed: () =>
    answered(
      closed.nobody.send('POST', '/api/people', { email: 'x@y.test', name: 'X', password: 'long enough words' }),
    ),
  stale: () => answered(teacher.send('PATCH', `/api/annotations/${mark}`, { version: 99, note: 'late' })),
  id_taken: () => answered(student.send('PUT', `/api/annotations/${mark}`, put())),
  tag_in_use: async () => {
    const id = await teacher.keepText('tagged', 'The tide turns.');
    await teacher.send('PUT', `/api/sources/${id}/tags`, { tags: ['old-name', 'new-name'] });
    return answered(teacher.send('POST', '/api/tags/change', { from: 'old-name', to: 'new-name' }));
  },
  not_yours: () => answered(student.send('PATCH', `/api/sources/${sourceId}`, { version: 1, title: 'Mine now' })),
  teachers_only: () => answered(student.send('PUT', `/api/classes/${classId}`, { name: 'Mine', tint: 'moss' })),
  outside_text: () =>
    answered(
      teacher.send(
        'PUT',
        `/api/annotations/${v7()}`,
        put({ anchor: { quote: { exact: 'x', prefix: '', suffix: '' }, position: { start: 5, end: 5000 } } }),
      ),
    ),
  quote_mismatch: () =>
    answered(
      teacher.send(
        'PUT',
        `/api/annotations/${v7()}`,
        put({ anchor: { quote: { exact: 'moon', prefix: '', suffix: '' }, position: { start: 4, end: 8 } } }),
      ),
    ),
  unknown_kind: () => answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ kind: v7() }))),
  not_in_class: () => answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ classIds: [v7()] }))),
  source_not_in_class: async () => {
    const other = v7();
    await teacher.send('PUT', `/api/classes/${other}`, { name: 'Another', tint: 'clay' });
    return answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ classIds: [other] })));
  },
  comments_closed: () =>
    whileSet({ comments: false }, () => student.send('PUT', `/api/annotations/${v7()}`, put({ classIds: [classId] }))),
  not_later: () =>
    whileSet({}, (url) => teacher.send('PUT', `${url}/extensions/${student.me.id}`, { dueAt: server.context.now() })),
  read_already: async () => {
    const annotationId = v7();
    const { versionId } = (await teacher.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
    const mark = tideMark(sourceId, versionId, { classIds: [classId], held: true });
    await teacher.send('PUT', `/api/annotations/${annotationId}`, mark);
    const some = { annotationIds: [annotationId] };
    await teacher.send('POST', `/api/classes/${classId}/held/release`, some);
    await student.send('POST', '/api/annotations/seen', some);
    return answered(teacher.send('POST', `/api/classes/${classId}/held/back`, some));
  },
  wrong_code: () => answered(student.send('POST', '/api/classes/join', { code: 'AAAAAA' })),
  bad_address: address('review.saltmere.test/marsh'),
  unknown_host: address('http://nowhere.invalid/'),
  private_address: trouble('to-private'),
  unreachable: trouble('vanishing'),
  page_missing: trouble('missing'),
  site_failed: trouble('broken'),
  refused_by_site: trouble('locked'),
  too_large: trouble('huge'),
  too_slow: () => {
    const fetcher = new SafeFetcher(policy());
    return refused(
      fetcher
        .fetch('http://trouble.saltmere.test/endless', { bytes: 1e6, milliseconds: 300, redirects: 1 })
        .finally(() => fetcher.close()),
    );
  },
  redirect_loop: trouble('loop'),
  wrong_type: trouble('binary'),
  empty_page: trouble('empty'),
  wrong_encoding: file('marked.txt', 0xef, 0xbb, 0xbf, 0x63, 0xe9, 0x0a),
  not_text: file('picture.txt', 0, 1, 2, 3),
  file_too_large: () =>
    inject({
      method: 'POST',
      url: `/api/uploads/${v7()}`,
      headers: { cookie: teacher.cookie, 'content-type': 'application/json' },
      payload: JSON.stringify('x'.repeat(5 * 1024 * 1024)),
    }),
  no_room: async () => {
    const small = await startServer({ env: { AVRELLE_ROOM: '1' } });
    const full = await small.person('Full');
    expect((await full.keepFile('fits.txt', Buffer.from('the tide turns '.repeat(20_000)))).state).toBe('done');
    const code = await full.keepFile('more.txt', Buffer.from('the tide comes '.repeat(60_000))).then(
      () => 'kept',
      (e: unknown) => (JSON.parse((e as Error).message) as Problem).code,
    );
    await small.close();
    return code;
  },
  no_file: () => answered(teacher.send('POST', `/api/uploads/${v7()}`, {})),
  unreadable: async () => {
    // What calls itself too often, wherever that is.
    const fetcher = {
      type: 'address' as const,
      address: 'http://review.saltmere.test/',
      got: {
        get bytes(): Uint8Array {
          throw new RangeError('Maximum call stack size exceeded');
        },
        name: 'a',
        contentType: '',
        address: null,
      },
    };
    return refused(ingest(fetcher, policy()));
  },
  too_complex: () => keepFile('deep.html', Buffer.from(`<body>${'<div>'.repeat(100_000)}deep`)),
  too_heavy: async () => {
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-heavy-'));
    const script = path.join(folder, 'heavy.mjs');
    fs.writeFileSync(
      script,
      'export default () => { const all = []; for (;;) all.push(new Array(100000).fill(Math.random())); };',
    );
    const pool = new PoolIngester(new URL(`file://${script}`), policy(), ':memory:', { memory: 32 });
    return refused(pool.compare('a', 'b')).finally(async () => {
      await pool.close();
      fs.rmSync(folder, { recursive: true });
    });
  },
};

test.each(Object.keys(ERRORS) as ErrorCode[])('%s is met and told', async (code) => {
  expect(await WAYS[code]()).toBe(code);
});
