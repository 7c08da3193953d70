import { describe, expect, test } from '@jest/globals';
import MailComposer from 'nodemailer/lib/mail-composer';
import { AppError } from '../../errors';
import { docx, epub, mhtml, PIXEL, warc, wave, zip } from '../../testing/files';
import { ingest } from '../ingest';
import { unzip } from '../unzip';
import { readTranscript } from './recording';

const POLICY = { names: [], privateHosts: [] };
const keep = (name: string, bytes: Uint8Array | string, more: object = {}) =>
  ingest({ type: 'file', name, bytes: typeof bytes === 'string' ? Buffer.from(bytes) : bytes, ...more }, POLICY);
const refusal = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'kept',
    (e: unknown) => (e instanceof AppError ? e.code : String(e)),
  );

describe('books', () => {
  test('chapters follow each other in one text, with contents, cover and authors', async () => {
    const { kind, text, outline, meta, lead, assets, snapshot } = await keep('walk.epub', await epub());
    expect(kind).toBe('book');
    expect(text).toBe(
      'The gate\nBegin at the gate; the hard comes after.\nThe hard\nHere the path ends.\nMind the tide.',
    );
    expect(outline.map((b) => [b.role, b.locator && 'file' in b.locator && b.locator.file])).toEqual([
      ['heading', 'OEBPS/text/one.xhtml'],
      ['paragraph', 'OEBPS/text/one.xhtml'],
      ['heading', 'OEBPS/text/two.xhtml'],
      ['paragraph', 'OEBPS/text/two.xhtml'],
      ['paragraph', 'OEBPS/text/two.xhtml'],
    ]);
    expect(meta).toMatchObject({
      title: 'The Walker’s Booklet',
      author: 'Bram Oake; Tilda Wick',
      language: 'en',
      publishedAt: '2025-04-01T00:00:00.000Z',
    });
    expect(assets.map((a) => a.hash)).toContain(lead);
    expect(snapshot).toContain('href="#f2-hard"');
  });

  test('its own styles stay with its chapters, and leave face, size, colour and place alone', async () => {
    const css = /<style>(.*?)<\/style>/s.exec((await keep('walk.epub', await epub())).snapshot)![1]!;
    expect(css).toContain('#f1 .first{text-indent:1.5em}');
    expect(css).toContain('#f1 p{font-style:italic}');
    expect(css).not.toMatch(/Fancy|red|fixed|url|40px|@font-face/);
  });

  test.each<[string, Record<string, string | undefined>, string]>([
    [
      'without a spine',
      { 'OEBPS/book.opf': '<package xmlns="http://www.idpf.org/2007/opf"><metadata/><manifest/><spine/></package>' },
      'bad_book',
    ],
    ['without a package', { 'META-INF/container.xml': undefined }, 'bad_book'],
    ['whose package is no XML', { 'OEBPS/book.opf': '<package' }, 'bad_book'],
    [
      'that is encrypted',
      {
        'META-INF/encryption.xml':
          '<encryption xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><EncryptedData xmlns="http://www.w3.org/2001/04/xmlenc#"><EncryptionMethod Algorithm="http://www.w3.org/2001/04/xmlenc#aes256-cbc"/></EncryptedData></encryption>',
      },
      'locked_book',
    ],
  ])('a book %s is refused', async (_what, changes, code) => {
    expect(await refusal(keep('walk.epub', await epub(changes)))).toBe(code);
  });

  test('fonts alone may be obfuscated, and a chapter that is no XML is still read', async () => {
    const obfuscated =
      '<encryption xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><EncryptedData xmlns="http://www.w3.org/2001/04/xmlenc#"><EncryptionMethod Algorithm="http://www.idpf.org/2008/embedding"/></EncryptedData></encryption>';
    const { text } = await keep(
      'walk.epub',
      await epub({
        'META-INF/encryption.xml': obfuscated,
        'OEBPS/text/two.xhtml': '<html><body><p>Unclosed & plain<br>text</body>',
      }),
    );
    expect(text).toContain('Unclosed & plain\ntext');
  });
});

describe('archives', () => {
  test('a page zipped with its folder brings its pictures and styles', async () => {
    const page =
      '<!doctype html>\n<!-- saved from url=(0036)http://review.saltmere.test/zipped-page -->\n<html><head><title>Zipped</title><link rel="stylesheet" href="Zipped_files/a.css"></head><body><h1>Zipped</h1><img src="./Zipped_files/mud%20one.png"></body></html>';
    const { assets, snapshot, address, missing } = await keep(
      'page.zip',
      await zip({
        'Zipped.html': page,
        'Zipped_files/a.css': 'h1{background:url("mud one.png")}',
        'Zipped_files/mud one.png': PIXEL,
        'Zipped_files/other.html': '<p>an advertisement',
      }),
    );
    expect(assets).toHaveLength(1);
    expect(snapshot).toContain(`h1{background:url(asset/${assets[0]!.hash})}`);
    expect([address, missing]).toEqual(['http://review.saltmere.test/zipped-page', []]);
  });

  test('a page saved as one MIME message is read with its parts (RFC 2557)', async () => {
    const { text, assets, address, snapshot } = await keep('page.mhtml', mhtml());
    expect(text).toBe('A kept page\n“Mud” keeps.');
    expect([assets.length, address]).toEqual([1, 'http://review.saltmere.test/kept']);
    expect(snapshot).toContain('h1{color:#0e5a60}');
  });

  test.each([false, true])('a web archive comes back as it was written, gzipped: %s', async (gzip) => {
    const bytes = await warc(
      [
        { address: 'http://review.saltmere.test/gone', type: 'text/html', body: 'gone', status: '404 Not Found' },
        {
          address: 'http://review.saltmere.test/a',
          type: 'text/html; charset=windows-1252',
          body: Buffer.from('<title>Arch\u00efve</title><p>Caf\u00e9 <img src="p.png">', 'latin1'),
        },
        { address: 'http://review.saltmere.test/p.png', type: 'image/png', body: PIXEL },
      ],
      gzip,
    );
    const { text, meta, assets, address } = await keep('marsh.warc', bytes);
    expect([text, meta.title, address]).toEqual(['Café', 'Archïve', 'http://review.saltmere.test/a']);
    expect(Buffer.from(assets[0]!.bytes).equals(PIXEL)).toBe(true);
  });

  test('names that climb out of the folder refuse the whole', async () => {
    const bytes = Buffer.from(
      (await zip({ 'aaaa/evil.html': '<p>x' }))
        .toString('latin1')
        .replaceAll('aaaa/evil', '../../evil'.padStart(9).slice(-9)),
      'latin1',
    );
    expect(await refusal(keep('page.zip', bytes))).toBe('bad_archive');
  });

  test('one that would unpack beyond its limits is refused before it does', async () => {
    const bomb = await zip({ 'a.html': Buffer.alloc(6_000_000, 'a') });
    expect(bomb.length).toBeLessThan(20_000);
    expect(await refusal(unzip(bomb, 'bomb.zip', { entries: 10, bytes: 1_000_000 }))).toBe('archive_too_large');
    const many = await zip(Object.fromEntries(Array.from({ length: 30 }, (_, n) => [`${n}.txt`, 'x'])));
    expect(await refusal(unzip(many, 'many.zip', { entries: 10, bytes: 1_000_000 }))).toBe('archive_too_large');
  });

  test('one that lies about the size of its files is refused', async () => {
    const honest = await zip({ 'a.html': 'a'.repeat(5000) });
    const lying = Buffer.from(honest);
    const at = lying.indexOf(Buffer.from('PK\x01\x02', 'latin1'));
    lying.writeUInt32LE(10, at + 24);
    expect(await refusal(keep('page.zip', lying))).toBe('bad_archive');
  });

  test.each([
    ['page.zip', zip({ 'notes.txt': 'x' }), 'no_page_inside'],
    ['page.zip', zip({ 'a.html': '<p>x' }).then((b) => b.subarray(0, 40)), 'bad_archive'],
    ['a.warc', warc([{ address: 'http://a.test/', type: 'image/png', body: PIXEL }]), 'no_page_inside'],
  ])('%s without a page, or cut off, is refused', async (name, bytes, code) => {
    expect(await refusal(keep(name, await bytes))).toBe(code);
  });
});

describe('documents', () => {
  test('a word-processor document keeps its headings, and says whose it is', async () => {
    const core =
      '<cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:dcterms="http://purl.org/dc/terms/"><dc:title>Minutes of the sluice meeting</dc:title><dc:creator>Hollis Pike</dc:creator><dcterms:created>2026-10-02T09:00:00Z</dcterms:created></cp:coreProperties>';
    const { kind, meta, text, outline } = await keep(
      'minutes.docx',
      await docx(
        [
          ['Heading1', 'Present'],
          ['', 'Everybody but the farmer.'],
          ['Heading2', 'Sluice Nine'],
          ['', 'It leaks &amp; creaks.'],
        ],
        core,
      ),
    );
    expect([kind, meta.title, meta.author, meta.publishedAt]).toEqual([
      'document',
      'Minutes of the sluice meeting',
      'Hollis Pike',
      '2026-10-02T09:00:00.000Z',
    ]);
    expect(text).toBe('Present\nEverybody but the farmer.\nSluice Nine\nIt leaks & creaks.');
    expect(outline.map((b) => b.level ?? 0)).toEqual([1, 0, 2, 0]);
  });

  test('a zip that only calls itself a document is refused', async () => {
    expect(await refusal(keep('minutes.docx', await zip({ 'word/readme.txt': 'no' })))).toMatch(
      /bad_document|no_page_inside/,
    );
  });

  test('a table of comma-separated values, quoted as RFC 4180 has it', async () => {
    const { kind, text, outline } = await keep(
      'pegs.csv',
      'peg,height,remark\r\n1,"2,5","said ""yes"""\r\n2,3.1,"two\r\nlines"\r\n',
    );
    expect(kind).toBe('table');
    expect(text).toBe('Pegs\npeg\theight\tremark\n1\t2,5\tsaid "yes"\n2\t3.1\ttwo lines');
    expect(outline.filter((b) => b.role === 'cell')).toHaveLength(9);
    expect(await refusal(keep('pegs.csv', 'a,b\n"never closed,1\n2,3'))).toBe('bad_table');
  });

  test('a picture stands under its name', async () => {
    const { kind, amount, text, assets, file } = await keep('gate_at-dawn.png', PIXEL);
    expect([kind, amount, text, assets.length, file?.mediaType]).toEqual([
      'image',
      'picture',
      'Gate at dawn',
      1,
      'image/png',
    ]);
    expect(await refusal(keep('gate.png', 'no picture at all'))).toBe('wrong_content');
  });
});

describe('recordings', () => {
  const VTT =
    'WEBVTT\n\nNOTE not said\n\n00:01.000 --> 00:03.500\n<v Bram Oake>Mind the <i>gate</i>.\n\n00:03.500 --> 00:06.000\n<v Bram Oake>It swings back.\n';

  test('the transcript is the text, each cue with its time', async () => {
    const { kind, text, outline, facts, file } = await keep('walk.wav', wave(), {
      transcript: { name: 'walk.vtt', bytes: Buffer.from(VTT) },
    });
    expect([kind, text, file?.mediaType]).toEqual([
      'audio',
      'Walk\nBram Oake: Mind the gate.\nIt swings back.',
      'audio/wav',
    ]);
    expect(outline.slice(1).map((b) => [b.role, b.locator])).toEqual([
      ['cue', { from: 1, to: 3.5 }],
      ['cue', { from: 3.5, to: 6 }],
    ]);
    expect(facts).toEqual({ transcript: true, seconds: 6 });
    expect((await keep('walk.wav', wave())).facts).toEqual({ transcript: false });
  });

  test('SubRip and plain text with times give the same cues as WebVTT', () => {
    const plain = (text: string, name: string) => readTranscript(text, name).map((c) => [c.from, c.text]);
    const said = [
      [1, 'Mind the gate.'],
      [3.5, 'It swings back.'],
    ];
    expect(plain(VTT, 'a.vtt')).toEqual(said);
    expect(
      plain(
        '1\r\n00:00:01,000 --> 00:00:03,500\r\nMind the gate.\r\n\r\n2\r\n00:00:03,500 --> 00:00:06,000\r\nIt swings back.\r\n',
        'a.srt',
      ),
    ).toEqual(said);
    expect(plain('[0:01] Mind the\n gate.\n[0:03.5] It swings back.', 'a.txt')).toEqual(said);
  });

  // WebVTT, section 1.1 (W3C Candidate Recommendation): the times and words of its first example, with names of ours.
  test('the specification’s way of writing cues is understood', () => {
    const cues = readTranscript(
      'WEBVTT\n\n00:11.000 --> 00:13.000\n<v Roger>We are in the marsh\n\n00:13.000 --> 00:16.000\n<v Roger>We are in the marsh <ruby>here<rt>now</rt></ruby>\n\n01:00:16.000 --> 01:00:18.000 align:start\n- &lt;both at once&gt;\n',
      'a.vtt',
    );
    expect(cues).toEqual([
      { from: 11, to: 13, speaker: 'Roger', text: 'We are in the marsh' },
      { from: 13, to: 16, speaker: 'Roger', text: 'We are in the marsh here' },
      { from: 3616, to: 3618, speaker: '', text: '- <both at once>' },
    ]);
  });

  test('a transcript of no times, and one without its recording, are refused', async () => {
    expect(
      await refusal(keep('walk.wav', wave(), { transcript: { name: 'walk.vtt', bytes: Buffer.from('just words') } })),
    ).toBe('bad_transcript');
    expect(await refusal(keep('walk.vtt', VTT))).toBe('no_recording');
  });
});

describe('letters', () => {
  const letter = (options: object): Promise<Buffer> =>
    new MailComposer({
      from: '"The Packet" <news@packet.saltmere.test>',
      to: 'letters-abc@intake.saltmere.test',
      subject: 'Höchste Flut',
      date: '2026-10-02T08:00:00Z',
      messageId: '<one@packet.saltmere.test>',
      ...options,
    })
      .compile()
      .build();

  test('a letter keeps sender, date and enclosed pictures, and asks strangers for nothing', async () => {
    const html =
      '<style>p{color:#333}</style><table role="presentation"><tr><td><p>The tide is <b>high</b>.</p><img src="cid:mud"><img src="http://tracker.saltmere.test/pixel.gif"></td></tr></table>';
    const { kind, text, meta, facts, assets, missing, fingerprint } = await keep(
      'letter.eml',
      await letter({
        html,
        attachments: [
          { filename: 'mud.png', content: PIXEL, cid: 'mud' },
          { filename: 'plan.pdf', content: 'x' },
        ],
      }),
    );
    expect(kind).toBe('letter');
    expect(text).toBe('Höchste Flut\nThe Packet · 2026-10-02\nThe tide is high.\nAttached: plan.pdf');
    expect(meta).toMatchObject({
      title: 'Höchste Flut',
      author: 'The Packet',
      site: 'packet.saltmere.test',
      publishedAt: '2026-10-02T08:00:00.000Z',
    });
    expect([facts.remote, assets.length, missing]).toEqual([1, 1, []]);
    expect(fingerprint).toBe('mid:one@packet.saltmere.test');
  });

  test('a letter of plain text keeps its paragraphs', async () => {
    expect(
      (await keep('letter.eml', await letter({ text: 'Dear all,\n\nthe gate is shut.\n\nTilda' }))).text,
    ).toContain('Dear all,\nthe gate is shut.\nTilda');
  });

  // RFC 2047, section 8 (encoded words) and RFC 2045, 6.7 (quoted-printable soft line breaks), with words of ours.
  test('encoded headers and bodies are read as their RFCs have them', async () => {
    const raw =
      'From: =?ISO-8859-1?Q?Odile_Farr=E4nt?= <odile@college.saltmere.test>\r\nSubject: =?UTF-8?B?VGlkZQ==?= =?UTF-8?B?cw==?=\r\nDate: Fri, 02 Oct 2026 08:00:00 +0100\r\nContent-Type: text/plain; charset=ISO-8859-1\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\nIf you believe that the marsh =\r\nstands still, caf=E9 in hand, look again.\r\n';
    const { meta, text } = await keep('letter.eml', raw);
    expect([meta.title, meta.author, meta.publishedAt]).toEqual(['Tides', 'Odile Farränt', '2026-10-02T07:00:00.000Z']);
    expect(text).toContain('If you believe that the marsh stands still, café in hand, look again.');
  });

  test('broken encodings are read as far as they go; what is no letter is refused', async () => {
    expect(
      (
        await keep(
          'letter.eml',
          'From: a@b.test\r\nSubject: =?UTF-8?B?@@@?=\r\nContent-Type: text/plain; charset=no-such-thing\r\nContent-Transfer-Encoding: base64\r\n\r\nVGlkZQ===*\r\n',
        )
      ).text,
    ).toContain('Tide');
    expect(await refusal(keep('letter.eml', 'Just some words, and nothing of a letter.'))).toBe('bad_letter');
  });
});
