import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readTree } from '@avrelle/core/text';
import type { LittleWeb } from '../../standins/web/serve';
import { AppError } from '../errors';
import { littleWeb } from '../testing/harness';
import { canonicalAddress } from './canonical';
import type { Ingested } from './ingested';
import { ingest } from './ingest';
import { decodeText, likelyEncoding } from './decode-text';
import { isPublicAddress, type NetworkPolicy } from './network-policy';
import { oneFile } from './one-file';
import { lightTree } from './light-tree';

let web: LittleWeb;
let policy: NetworkPolicy;
beforeAll(async () => {
  web = await littleWeb();
  policy = { names: [{ suffix: 'saltmere.test', host: '127.0.0.1', port: web.port }], privateHosts: [] };
});
afterAll(() => web.close());

const keep = (address: string): Promise<Ingested> => ingest({ type: 'address', address }, policy);
const file = (name: string, bytes: Uint8Array | string): Promise<Ingested> =>
  ingest({ type: 'file', name, bytes: Buffer.from(bytes) }, policy);
const refusal = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'kept',
    (error: unknown) => (error instanceof AppError ? error.code : `unforeseen: ${String(error)}`),
  );

describe('keeping a page', () => {
  test('brings styles, imports, pictures and fonts inside, and keeps no script', async () => {
    const kept = await keep('http://review.saltmere.test/marsh-that-walks-inland');
    expect(kept.assets.map((a) => a.mediaType).sort()).toEqual(['font/woff2', 'image/svg+xml']);
    expect(kept.missing).toEqual([]);
    expect(kept.snapshot).not.toMatch(/<script|onload|https?:\/\/(?!review)/i);
    expect(oneFile(kept.snapshot, kept.assets)).not.toMatch(/asset\/|@import|src="http/);
  });

  test('reads title, author, site, date, language and canonical address', async () => {
    const { meta, canonical, kind } = await keep(
      'http://review.saltmere.test/marsh-that-walks-inland?utm_source=letter',
    );
    expect(meta).toMatchObject({
      title: 'The Marsh That Walks Inland',
      author: 'Odile Farrant',
      site: 'Saltmere Estuary Review',
      language: 'en',
      publishedAt: '2026-10-02T00:00:00.000Z',
    });
    expect([canonical, kind]).toEqual(['https://review.saltmere.test/marsh-that-walks-inland', 'page']);
  });

  test('several authors and linked data are read', async () => {
    const { meta } = await keep('http://pegs.saltmere.test/handbook');
    expect(meta).toMatchObject({
      title: 'Handbook of the Saltmere Pegs: A Reference',
      author: 'Ottilie Brandreth; Saul Wick',
      site: 'Saltmere College Survey',
    });
  });

  test('sets menus, advertisements and notices aside, and nothing of the article', async () => {
    const { text, outline, meta } = await keep('http://packet.saltmere.test/who-pays');
    const main = outline
      .filter((b) => !b.aside)
      .map((b) => text.slice(b.start, b.end))
      .join('\n');
    expect(main).toContain('The letter that reached eleven households along Fleet Creek');
    expect(main).toContain('There will be a plan on the wall, a peg from the marsh handed round, and soup.');
    expect(main.startsWith(meta.title)).toBe(true);
    for (const clutter of [
      'BOOTS!',
      'WIN A WHEELBARROW',
      '614 partners',
      'Boats for sale',
      'Most read',
      '41 comments',
      'TIDE CLOCKS',
    ]) {
      expect(text).toContain(clutter);
      expect(main).not.toContain(clutter);
    }
  });

  test('keeps figures, captions, tables and headings in the main text', async () => {
    const creek = await keep('http://creek.saltmere.test/five-drawings');
    const main = creek.outline.filter((b) => !b.aside);
    expect(main.filter((b) => b.role === 'caption')).toHaveLength(5);
    expect(creek.snapshot.match(/<img /g)).toHaveLength(5);
    const pegs = await keep('http://pegs.saltmere.test/handbook');
    expect(pegs.outline.filter((b) => b.role === 'cell' && !b.aside).length).toBeGreaterThan(80);
    expect(pegs.outline.filter((b) => b.role === 'heading' && !b.aside)).toHaveLength(37);
    expect(pegs.text).toContain('Levée\t10\t7.4\t1.1\t+3.5');
  });

  test('reads another script, and an encoding other than UTF-8', async () => {
    expect((await keep('http://lagoon.saltmere.test/almyro-livadi')).text).toContain('Το λιβάδι κρατάει το ύψος του');
    expect((await keep('http://packet.saltmere.test/who-pays')).text).toContain('“voluntary”');
  });

  test('the stream read from the stored snapshot is the stream that was stored', async () => {
    for (const address of [
      'review.saltmere.test/marsh-that-walks-inland',
      'packet.saltmere.test/who-pays',
      'pegs.saltmere.test/handbook',
      'creek.saltmere.test/five-drawings',
      'lagoon.saltmere.test/almyro-livadi',
      'harbour.saltmere.test/dredger',
    ]) {
      const kept = await keep(`http://${address}`);
      const again = readTree(lightTree(kept.snapshot));
      expect(again.text).toBe(kept.text);
      expect(again.outline).toEqual(kept.outline);
    }
  });
});

describe('keeping a file', () => {
  test('Markdown with front matter', async () => {
    const kept = await file(
      'lav.md',
      '---\ntitle: Sea-Lavender\nauthor: Lettice Marl\npublished: 2026-04-18\n---\n\n# Sea-Lavender\n\nPlants *keep* books.\n\n- one\n- two\n',
    );
    expect(kept.meta).toMatchObject({
      title: 'Sea-Lavender',
      author: 'Lettice Marl',
      publishedAt: '2026-04-18T00:00:00.000Z',
    });
    expect(kept.text).toBe('Sea-Lavender\nPlants keep books.\none\ntwo');
  });

  test('plain text keeps its lines', async () => {
    expect((await file('walk.txt', 'First line\nsecond\r\n\r\nNext <b>paragraph</b>')).text).toBe(
      'First line\nsecond\nNext <b>paragraph</b>',
    );
  });

  test('HTML without a network: what lies outside is left out', async () => {
    const kept = await file(
      'page.html',
      '<p>words enough</p><img src="http://elsewhere.test/a.png"><link rel=stylesheet href="http://elsewhere.test/x.css">',
    );
    expect(kept.snapshot).not.toContain('elsewhere');
    expect(kept.text).toBe('words enough');
  });

  test('HTML that names no encoding is read as UTF-8 where it is that, else as windows-1252', async () => {
    expect((await file('a.html', '<p>levée 潮</p>')).text).toBe('levée 潮');
    expect((await file('b.html', Buffer.from([0x3c, 0x70, 0x3e, 0x6c, 0xe9]))).text).toBe('lé');
    expect(
      (await file('c.html', Buffer.concat([Buffer.from('<meta charset=shift_jis><p>'), Buffer.from([0x92, 0xaa])])))
        .text,
    ).toBe('潮');
  });

  test.each([
    ['deep.html', Buffer.from(`${'<div>'.repeat(6000)}x`), 'too_complex'],
    ['photo.txt', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]), 'not_text'],
    ['photo.html', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]), 'not_text'],
    ['nothing.html', Buffer.from('<p> </p>'), 'empty_page'],
    ['nothing.txt', Buffer.from(''), 'empty_file'],
    ['blank.txt', Buffer.from(' \n '), 'empty_page'],
  ])('%s is refused', async (name, bytes, code) => {
    expect(await refusal(file(name, bytes))).toBe(code);
  });

  const WORDS =
    'Die Ebbe läuft um sieben; wer über die Brücke will, wartet nicht auf die Fähre. Müde Gänse stehen am Ufer.';
  const utf32 = (text: string, little: boolean): Buffer => {
    const out = Buffer.alloc([...text].length * 4);
    [...text].forEach((c, n) =>
      little ? out.writeUInt32LE(c.codePointAt(0)!, n * 4) : out.writeUInt32BE(c.codePointAt(0)!, n * 4),
    );
    return out;
  };
  const swapped = (text: string): Buffer => Buffer.from(text, 'utf16le').swap16();
  test.each([
    ['UTF-16LE with a mark', Buffer.from(`\uFEFF${WORDS}`, 'utf16le')],
    ['UTF-16BE with a mark', swapped(`\uFEFF${WORDS}`)],
    ['UTF-16LE without', Buffer.from(WORDS, 'utf16le')],
    ['UTF-32LE with a mark', utf32(`\uFEFF${WORDS}`, true)],
    ['UTF-32BE with a mark', utf32(`\uFEFF${WORDS}`, false)],
    ['UTF-8 with a mark', Buffer.from(`\uFEFF${WORDS}`)],
    ['windows-1252', Buffer.from(WORDS, 'latin1')],
  ])('a text in %s is read, and is no recording', async (_name, bytes) => {
    for (const name of ['a.txt', 'a.md', 'letter']) expect((await file(name, bytes)).text).toBe(WORDS);
  });

  test('a marked text is one wherever its beginning happens to end, within a character as well', async () => {
    for (let n = 0; n < 4; n++)
      expect((await file('a.txt', Buffer.from(`\uFEFF${'x'.repeat(2_040 + n)}🌊${WORDS}`, 'utf16le'))).text).toContain(
        WORDS,
      );
  });

  test('what no mark tells is told by the header, else by what the bytes are like', async () => {
    const cyrillic = Buffer.from([0xcf, 0xf0, 0xe8, 0xeb, 0xe8, 0xe2]);
    const koi = Buffer.from([0xf0, 0xd2, 0xc9, 0xcc, 0xc9, 0xd7]);
    expect([
      decodeText(cyrillic, 'a', 'text/plain; charset=windows-1251'),
      decodeText(koi, 'a', 'text/plain; charset=koi8-r'),
    ]).toEqual(['Прилив', 'Прилив']);
    // "The tide comes in the evening, and the ferry waits for nobody", in Japanese, as EUC-JP has it.
    const japanese = Buffer.from(
      'c4acd1a2bfe5a4cfcdbcca fda4cbcbfea4c1a1a2c5cfa4b7c1a5a4cfc3afa4e2c2d4a4bfa4caa4a4a1a3'.replace(/ /g, ''),
      'hex',
    );
    expect(likelyEncoding(japanese)).toBe('EUC-JP');
  });
});

describe('what goes wrong on the way', () => {
  test.each([
    ['review.saltmere.test/marsh', 'bad_address'],
    ['ftp://review.saltmere.test/', 'bad_address'],
    ['http://no-such-host.invalid/', 'unknown_host'],
    ['http://trouble.saltmere.test/nothing-here', 'page_missing'],
    ['http://trouble.saltmere.test/broken', 'site_failed'],
    ['http://trouble.saltmere.test/locked', 'refused_by_site'],
    ['http://trouble.saltmere.test/huge', 'too_large'],
    ['http://trouble.saltmere.test/binary', 'wrong_type'],
    ['http://trouble.saltmere.test/binary-as-html', 'wrong_type'],
    ['http://trouble.saltmere.test/loop', 'redirect_loop'],
    ['http://trouble.saltmere.test/to-private', 'private_address'],
    ['http://trouble.saltmere.test/to-loopback', 'private_address'],
    ['http://trouble.saltmere.test/to-file', 'bad_address'],
    ['http://trouble.saltmere.test/empty', 'empty_page'],
    ['http://trouble.saltmere.test/vanishing', 'unreachable'],
    ['http://127.0.0.1:8099/', 'private_address'],
    ['http://[::1]/', 'private_address'],
    ['http://[::ffff:127.0.0.1]/', 'private_address'],
    ['http://2130706433/', 'private_address'],
    ['http://localhost/', 'private_address'],
    ['http://169.254.169.254/latest', 'private_address'],
  ])('%s → %s', async (address, code) => {
    expect(await refusal(keep(address))).toBe(code);
  });

  test('a redirect to a good page is followed', async () => {
    expect((await keep('http://trouble.saltmere.test/moved')).address).toBe(
      'http://review.saltmere.test/marsh-that-walks-inland?utm_source=trouble',
    );
  });
});

test('only the public internet counts as public (RFC 6890 special-purpose ranges)', () => {
  const closed = [
    '0.0.0.0',
    '10.0.0.1',
    '100.64.0.1',
    '127.0.0.1',
    '169.254.1.1',
    '172.16.0.1',
    '192.168.1.1',
    '198.18.0.1',
    '224.0.0.1',
    '240.0.0.1',
    '255.255.255.255',
    '::',
    '::1',
    'fc00::1',
    'fe80::1',
    'ff02::1',
    '::ffff:10.0.0.1',
    '2001:db8::1',
    '64:ff9b::a00:1',
    'nonsense',
  ];
  expect(
    [...closed, '::127.0.0.1', '::7f00:1', '64:ff9b::7f00:1', '2002:7f00:1::1', '100::1', 'fec0::1'].filter(
      isPublicAddress,
    ),
  ).toEqual([]);
  expect(['93.184.216.34', '2606:2800:220:1::1'].filter(isPublicAddress)).toHaveLength(2);
});

test('one page has one canonical address', () => {
  const forms = [
    'http://www.review.saltmere.test/a/?utm_source=x&b=2&a=1#part',
    'https://review.saltmere.test/a?a=1&b=2',
    'http://review.saltmere.test/a/?b=2&a=1&fbclid=9',
  ];
  expect(new Set(forms.map(canonicalAddress)).size).toBe(1);
});
