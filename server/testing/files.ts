import JSZip from 'jszip';
import PDFDocument from 'pdfkit';
import { WARCRecord, WARCSerializer } from 'warcio';

/** Files of each format, made for tests. */

type Draw = (doc: PDFKit.PDFDocument) => void;

export function pdf(draw: Draw, options: PDFKit.PDFDocumentOptions = {}): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margin: 60,
    info: { Title: 'Survey of the pegs', Author: 'Odile Farrant' },
    ...options,
  });
  const parts: Buffer[] = [];
  doc.on('data', (part: Buffer) => parts.push(part));
  const done = new Promise<Buffer>((resolve) => doc.on('end', () => resolve(Buffer.concat(parts))));
  draw(doc);
  doc.end();
  return done;
}

/** Page labels (ISO 32000-1, 12.4.2), which the library has no call for: roman numbers for `front` pages, then from 1. */
export function labelPages(doc: PDFKit.PDFDocument, front: number): void {
  (doc as unknown as { _root: { data: Record<string, unknown> } })._root.data.PageLabels = {
    Nums: [0, { S: 'r' }, front, { S: 'D' }],
  };
}

export const zip = async (
  files: Readonly<Record<string, string | Uint8Array>>,
  stored: readonly string[] = [],
): Promise<Buffer> => {
  const archive = new JSZip();
  for (const [name, content] of Object.entries(files))
    archive.file(name, content, { compression: stored.includes(name) ? 'STORE' : 'DEFLATE' });
  return archive.generateAsync({ type: 'nodebuffer' });
};

const chapter = (title: string, body: string): string =>
  `<?xml version="1.0" encoding="utf-8"?><!DOCTYPE html><html xmlns="http://www.w3.org/1999/xhtml" xml:lang="en" lang="en"><head><title>${title}</title><link rel="stylesheet" type="text/css" href="../book.css"/></head><body>${body}</body></html>`;

const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
export { PIXEL };

/** A small EPUB 3. What is given replaces files of it; undefined leaves one out. */
export function epub(changes: Readonly<Record<string, string | undefined>> = {}): Promise<Buffer> {
  const files: Record<string, string | Uint8Array | undefined> = {
    mimetype: 'application/epub+zip',
    'META-INF/container.xml':
      '<?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="OEBPS/book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>',
    'OEBPS/book.opf': `<?xml version="1.0"?><package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id"><metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">urn:uuid:6f1f2c1e-6a43-4c29-8a0a-1f0e4c5b7a10</dc:identifier><dc:title>The Walker’s Booklet</dc:title><dc:creator>Bram Oake</dc:creator><dc:creator>Tilda Wick</dc:creator><dc:language>en</dc:language><dc:date>2025-04-01</dc:date><meta property="dcterms:modified">2025-04-01T00:00:00Z</meta></metadata>
      <manifest><item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/><item id="c1" href="text/one.xhtml" media-type="application/xhtml+xml"/><item id="c2" href="text/two.xhtml" media-type="application/xhtml+xml"/><item id="css" href="book.css" media-type="text/css"/><item id="cover" href="cover.png" media-type="image/png" properties="cover-image"/></manifest>
      <spine><itemref idref="c1"/><itemref idref="c2"/></spine></package>`,
    'OEBPS/nav.xhtml':
      '<?xml version="1.0"?><html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops"><head><title>Contents</title></head><body><nav epub:type="toc"><ol><li><a href="text/one.xhtml">The gate</a></li><li><a href="text/two.xhtml">The hard</a></li></ol></nav></body></html>',
    'OEBPS/text/one.xhtml': chapter(
      'The gate',
      '<h1 id="top">The gate</h1><p class="first">Begin at the gate; <a href="two.xhtml#hard">the hard</a> comes after.<a id="n"/></p><p><img src="../cover.png" alt="A gate"/></p>',
    ),
    'OEBPS/text/two.xhtml': chapter(
      'The hard',
      '<p id="hard">Here the path ends.</p><p style="position:fixed;top:0">Mind the tide.</p>',
    ),
    'OEBPS/book.css':
      'body{font-family:Fancy;color:red;position:fixed} .first{text-indent:1.5em;background:url(x.png)} @font-face{font-family:Fancy;src:url(f.otf)} p{font-style:italic;font-size:40px}',
    'OEBPS/cover.png': PIXEL,
    ...changes,
  };
  const kept = Object.fromEntries(Object.entries(files).filter(([, content]) => content !== undefined)) as Record<
    string,
    string | Uint8Array
  >;
  return zip(kept, ['mimetype']);
}

/** A word-processor document of paragraphs, each with a style. */
export function docx(paragraphs: readonly (readonly [style: string, text: string])[], core = ''): Promise<Buffer> {
  const body = paragraphs
    .map(
      ([style, text]) =>
        `<w:p>${style ? `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>` : ''}<w:r><w:t>${text}</w:t></w:r></w:p>`,
    )
    .join('');
  const styles = ['Heading1', 'Heading2', 'Title']
    .map(
      (id) =>
        `<w:style w:type="paragraph" w:styleId="${id}"><w:name w:val="${id.replace(/(\d)/, ' $1').replace('Heading', 'heading')}"/></w:style>`,
    )
    .join('');
  const w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  return zip({
    '[Content_Types].xml':
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml"/></Types>',
    '_rels/.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    'word/_rels/document.xml.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="s1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles" Target="styles.xml"/></Relationships>',
    'word/document.xml': `<?xml version="1.0"?><w:document ${w}><w:body>${body}</w:body></w:document>`,
    'word/styles.xml': `<?xml version="1.0"?><w:styles ${w}>${styles}</w:styles>`,
    ...(core ? { 'docProps/core.xml': core } : {}),
  });
}

/** A WARC 1.0 file of responses, written by the library. */
export async function warc(
  pages: readonly {
    readonly address: string;
    readonly type: string;
    readonly body: string | Uint8Array;
    readonly status?: string;
  }[],
  gzip = false,
): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  for (const { address, type, body, status = '200 OK' } of pages) {
    const record = WARCRecord.create(
      {
        url: address,
        date: '2026-10-02T12:00:00Z',
        type: 'response',
        warcVersion: 'WARC/1.0',
        httpHeaders: { 'Content-Type': type },
        statusline: `HTTP/1.1 ${status}`,
      } as never,
      once(typeof body === 'string' ? Buffer.from(body) : body),
    );
    parts.push(await WARCSerializer.serialize(record, { gzip }));
  }
  return Buffer.concat(parts);
}

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
}

/** RFC 2557: a page with its style sheet and picture as one MIME message. */
export const mhtml = (address = 'http://review.saltmere.test/kept'): string =>
  [
    'From: <Saved>',
    `Snapshot-Content-Location: ${address}`,
    'Subject: A kept page',
    'MIME-Version: 1.0',
    'Content-Type: multipart/related; type="text/html"; boundary="----part"',
    '',
    '------part',
    'Content-Type: text/html',
    'Content-Transfer-Encoding: quoted-printable',
    `Content-Location: ${address}`,
    '',
    '<!doctype html><html lang=3D"en"><head><meta charset=3D"utf-8"><title>A kept page</title><link rel=3D"stylesheet" href=3D"cid:sheet@marsh"></head><body><h1>A kept page</h1><p>=E2=80=9CMud=E2=80=9D keeps.</p><img src=3D"/mud.png" alt=3D"Mud"></body></html>',
    '------part',
    'Content-Type: text/css',
    'Content-Transfer-Encoding: 8bit',
    'Content-ID: <sheet@marsh>',
    '',
    'h1{color:#0e5a60}',
    '------part',
    'Content-Type: image/png',
    'Content-Transfer-Encoding: base64',
    `Content-Location: ${new URL('/mud.png', address).href}`,
    '',
    PIXEL.toString('base64'),
    '------part--',
    '',
  ].join('\r\n');

/** A second of silence: RIFF WAVE, 8 kHz, 8 bits, one channel. */
export function wave(seconds = 1): Buffer {
  const data = Buffer.alloc(8000 * seconds, 128);
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + data.length, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(8000, 24);
  head.writeUInt32LE(8000, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(data.length, 40);
  return Buffer.concat([head, data]);
}
