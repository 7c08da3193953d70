import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { JSDOM } from 'jsdom';
import JSZip from 'jszip';
import Papa from 'papaparse';
import { addressesIn } from '@avrelle/core/gather';
import { opmlFile } from '@avrelle/core/export';
import type { SourceDetail, SourcePage } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let me: Client;
beforeAll(async () => {
  server = await startServer();
  me = await server.person('Keeper');
  const id = await me.keepText('plain', 'Words of mud.');
  const odd = await me.keepText('odd', 'Other words.');
  const before = (await me.send<SourceDetail>('GET', `/api/sources/${odd}`)).body;
  await me.send('PATCH', `/api/sources/${odd}`, {
    version: before.version,
    title: '=2+3, "quoted" & <b>',
    author: 'Ines\u2019 “own”',
    description: 'Two\nlines',
    remark: 'a, b\r\nc',
  });
  await me.send('PUT', `/api/sources/${odd}/tags`, { tags: ['mud', 'essay/opening'] });
  server.context.db.run("UPDATE source SET address = 'http://a.saltmere.test/?x=1&y=2' WHERE id = ?", odd);
  await me.send('PUT', `/api/sources/${id}/shelf`, { state: 'finished' });
});
afterAll(() => server.close());

// RFC 4180, read back by a library; a leading "=" stands behind an apostrophe, so that no spreadsheet reckons it.
test('as a table, what the search finds is read back by others', async () => {
  const { text, headers } = await me.send('GET', '/api/sources.csv');
  const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true });
  expect([errors, data.length, headers['content-type']]).toEqual([[], 2, 'text/csv; charset=utf-8']);
  expect(data.find((row) => row.author)).toMatchObject({
    title: '\'=2+3, "quoted" & <b>',
    author: 'Ines’ “own”',
    tags: 'essay/opening mud',
    remark: 'a, b\r\nc',
    address: 'http://a.saltmere.test/?x=1&y=2',
    state: 'To read',
  });
  expect(
    Papa.parse((await me.send('GET', '/api/sources.csv?q=is:finished')).text, { header: true }).data,
  ).toMatchObject([{ title: 'Plain' }]);
});

test('as bookmarks, what has an address is read back by an HTML parser and by our own taking in', async () => {
  const { text } = await me.send('GET', '/api/sources/bookmarks.html');
  const [link, ...more] = new JSDOM(text).window.document.querySelectorAll('dt > a');
  expect([more.length, link!.textContent, link!.getAttribute('href'), link!.getAttribute('tags')]).toEqual([
    0,
    '=2+3, "quoted" & <b>',
    'http://a.saltmere.test/?x=1&y=2',
    'essay/opening,mud',
  ]);
  expect(addressesIn(text)).toEqual(['http://a.saltmere.test/?x=1&y=2']);
});

test('chosen sources are taken out as a table, as bookmarks, or with the study notes of each in an archive', async () => {
  const rows = (await me.send<SourcePage>('GET', '/api/sources')).body.sources;
  const plain = rows.find((s) => s.title === 'Plain')!;
  const sourceIds = [plain.id];
  const take = (body: object) =>
    server.app.inject({ method: 'POST', url: '/api/sources/take-out', headers: { cookie: me.cookie }, payload: body });
  expect(Papa.parse((await take({ sourceIds, as: 'csv' })).body, { header: true }).data).toMatchObject([
    { title: 'Plain' },
  ]);
  expect((await take({ sourceIds: rows.map((s) => s.id), as: 'bookmarks' })).body).toContain('a.saltmere.test');
  const twin = await me.keepText('twin', 'A twin of it.');
  const { version } = (await me.send<SourceDetail>('GET', `/api/sources/${twin}`)).body;
  await me.send('PATCH', `/api/sources/${twin}`, { version, title: 'Plain' });
  const answer = await take({ sourceIds: [plain.id, twin], as: 'notes' });
  const { files } = await JSZip.loadAsync(answer.rawPayload);
  expect([answer.headers['content-type'], Object.keys(files)]).toEqual(['application/zip', ['plain.md', 'plain 2.md']]);
  expect(await files['plain.md']!.async('text')).toContain('Plain');
  const other = await server.person('Stranger');
  expect(
    Papa.parse(
      (
        await server.app.inject({
          method: 'POST',
          url: '/api/sources/take-out',
          headers: { cookie: other.cookie },
          payload: { sourceIds, as: 'csv' },
        })
      ).body.trim(),
      { header: true },
    ).data,
  ).toEqual([]);
  expect((await take({ sourceIds, as: 'stone' })).statusCode).toBe(400);
});

// OPML 2.0: every outline of a feed has text and xmlUrl.
test('feeds are read back by an XML parser', async () => {
  const read = (text: string) =>
    [
      ...new JSDOM(text, { contentType: 'text/xml' }).window.document.querySelectorAll(
        'opml[version="2.0"] > body > outline',
      ),
    ].map((o) => [o.getAttribute('text'), o.getAttribute('xmlUrl')]);
  expect(
    read(
      opmlFile('F', [{ title: 'Tide & "Time" <x>\u0001', address: 'http://a.test/?a=1&b=2' }], '2026-11-25T00:00:00Z'),
    ),
  ).toEqual([['Tide & "Time" <x>', 'http://a.test/?a=1&b=2']]);
  expect(read((await me.send('GET', '/api/feeds.opml')).text)).toEqual([]);
});
