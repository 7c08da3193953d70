import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import type { Problem, SourceDetail } from '@avrelle/core/wire';
import type { LittleWeb } from '../../standins/web/serve';
import { readFeed } from '../ingest/feed';
import { ingest } from '../ingest/ingest';
import { PoolIngester } from '../ingest/pool-ingester';
import { SafeFetcher } from '../ingest/safe-fetch';
import { unzip } from '../ingest/unzip';
import { docx, epub, pdf, PIXEL, wave, zip } from '../testing/files';
import { littleWeb, startServer, type Client, type Server } from '../testing/harness';
import { answered, injected, refused } from '../testing/refused';
import { GATHERING } from './gathering';

let server: Server;
let web: LittleWeb;
let teacher: Client;
let stranger: Client;
let sourceId: string;

beforeAll(async () => {
  web = await littleWeb();
  server = await startServer();
  teacher = await server.person('Teacher');
  stranger = await server.person('Stranger');
  sourceId = await teacher.keepText('tide', 'The tide turns at seven.');
});
afterAll(async () => {
  await Promise.all([server, web].map((one) => one.close()));
});

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
const inject = (options: object): Promise<string> => injected(server.app, options);

/** One way to meet each row of the table. A new row without one does not compile. */
const WAYS: Readonly<Record<keyof typeof GATHERING, () => Promise<string>>> = {
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

test.each(Object.keys(GATHERING) as (keyof typeof GATHERING)[])('%s is met and told', async (code) => {
  expect(await WAYS[code]()).toBe(code);
});
