import { gunzipSync } from 'node:zlib';
import { simpleParser, type SimpleParserOptions } from 'mailparser';
import { WARCParser, type WARCRecord } from 'warcio';
import { AppError } from '../../errors';
import { NOWHERE, PartLoader, typeOfName, type Part } from '../loader';
import type { Got } from '../got';
import type { RawPage, Reader } from '../made';
import { ARCHIVE_LIMITS, unzip } from '../unzip';

const none = (got: Got): AppError => new AppError('no_page_inside', { name: got.name }, { field: 'file' });

/** A page saved by a browser with its folder, put into one zip file. */
export const readZippedPage: Reader = async (got) => {
  const files = await unzip(got.bytes, got.name);
  const pages = [...files.keys()].filter((path) => /\.x?html?$/i.test(path) && !/(^|\/)(__MACOSX\/|\.)/.test(path));
  const depth = (path: string): number => path.split('/').length;
  const [first] = pages.sort(
    (a, b) =>
      depth(a) - depth(b) ||
      Number(/index\.x?html?$/i.test(b)) - Number(/index\.x?html?$/i.test(a)) ||
      files.get(b)!.byteLength - files.get(a)!.byteLength,
  );
  if (first === undefined) throw none(got);
  const loader = new PartLoader(
    [...files].map(([path, bytes]) => [addressIn(path), { bytes, contentType: typeOfName(path) }] as const),
  );
  return {
    form: 'raw',
    kind: 'page',
    html: files.get(first)!,
    base: addressIn(first),
    loader,
    ...savedFrom(files.get(first)!),
  };
};

const addressIn = (path: string): string => new URL(path.split('/').map(encodeURIComponent).join('/'), NOWHERE).href;

/** The comment by which browsers note where a page was saved from (common practice). */
export function savedFrom(html: Uint8Array): { address?: string } {
  const address = /<!--\s*saved from url=\(\d+\)(https?:\/\/\S+?)\s*-->/i.exec(
    Buffer.from(html.subarray(0, 2_000)).toString('latin1'),
  )?.[1];
  return address && URL.canParse(address) ? { address } : {};
}

/** RFC 2557: a page and its parts as one MIME message. */
export const readMimePage: Reader = async (got): Promise<RawPage> => {
  checkClosed(got);
  const mail = await simpleParser(Buffer.from(got.bytes), {
    keepCidLinks: true,
    skipImageLinks: true,
    skipTextToHtml: true,
    skipHtmlToText: true,
  } as SimpleParserOptions);
  if (!mail.html) throw none(got);
  const end = mail.html.search(/<\/html>/i);
  const html = end < 0 ? mail.html : mail.html.slice(0, end);
  const parts = mail.attachments.flatMap((part): [string, Part][] => {
    const stored: Part = { bytes: part.content, contentType: part.contentType };
    const location = part.headers.get('content-location');
    return [
      ...(typeof location === 'string' && URL.canParse(location, NOWHERE)
        ? [[new URL(location, NOWHERE).href, stored] as [string, Part]]
        : []),
      ...(part.cid ? [[`cid:${part.cid}`, stored] as [string, Part]] : []),
    ];
  });
  const address = locationOfPage(got.bytes);
  return {
    form: 'raw',
    kind: 'page',
    html,
    loader: new PartLoader(parts),
    ...(address ? { base: address, address } : {}),
  };
};

/** The last boundary says that nothing is missing (RFC 2046, 5.1.1). Throws `cut_off`. */
function checkClosed({ bytes, name }: Got): void {
  const boundary = /boundary\s*=\s*(?:"([^"]+)"|([^\s;]+))/i.exec(
    Buffer.from(bytes.subarray(0, 20_000)).toString('latin1'),
  );
  const value = boundary?.[1] ?? boundary?.[2];
  if (
    value !== undefined &&
    !Buffer.from(bytes.subarray(Math.max(0, bytes.byteLength - 10_000))).includes(`--${value}--`, 0, 'latin1')
  )
    throw new AppError('cut_off', { name, reason: 'its last boundary is missing' }, { field: 'file' });
}

/** The `Content-Location` of the first part that is HTML. */
function locationOfPage(bytes: Uint8Array): string | undefined {
  const text = Buffer.from(bytes.subarray(0, 100_000)).toString('latin1');
  const headers = text.split(/\r?\n\r?\n/).find((block) => /^content-type:\s*text\/html/im.test(block));
  const location =
    /^(?:snapshot-)?content-location:\s*(\S+)/im.exec(headers ?? '')?.[1] ??
    /^snapshot-content-location:\s*(\S+)/im.exec(text)?.[1];
  return location && /^https?:/i.test(location) && URL.canParse(location) ? location : undefined;
}

/** Where a record's content came from; undefined for what is no answer, or one that is not of use. */
function answeredAddress({ warcTargetURI, warcType, httpHeaders }: WARCRecord): string | undefined {
  const address = warcTargetURI?.replace(/^<|>$/g, '') ?? '';
  const answered = warcType === 'resource' || (warcType === 'response' && httpHeaders?.statusCode === 200);
  return answered && /^https?:/.test(address) ? address : undefined;
}

/** Throws `archive_too_large` where it holds more than `room` bytes. */
async function readPart(record: WARCRecord, room: number, name: string): Promise<Part> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of record) {
    size += chunk.byteLength;
    if (size > room)
      throw new AppError(
        'archive_too_large',
        { name, entries: ARCHIVE_LIMITS.entries, limit: ARCHIVE_LIMITS.bytes / 1024 / 1024 },
        { field: 'file' },
      );
    chunks.push(chunk);
  }
  const contentType = record.httpHeaders?.headers?.get('content-type') ?? record.warcContentType ?? '';
  return { bytes: Buffer.concat(chunks), contentType };
}

/** WARC 1.0 and 1.1 (ISO 28500), gzipped or not: the first page that was answered with 200, and what came with it. */
export const readWebArchive: Reader = async (got): Promise<RawPage> => {
  checkEnd(got);
  const parts: [string, Part][] = [];
  let page: { address: string; part: Part } | undefined;
  try {
    let total = 0;
    for await (const record of new WARCParser(pieces(got.bytes))) {
      const address = answeredAddress(record);
      if (address === undefined) continue;
      const part = await readPart(record, ARCHIVE_LIMITS.bytes - total, got.name);
      total += part.bytes.byteLength;
      if (!page && /^(text\/html|application\/xhtml\+xml)/i.test(part.contentType)) page = { address, part };
      parts.push([address, part]);
    }
  } catch (cause) {
    if (cause instanceof AppError) throw cause;
    throw new AppError('bad_archive', { name: got.name, reason: (cause as Error).message }, { field: 'file' });
  }
  if (!page) throw none(got);
  return {
    form: 'raw',
    kind: 'page',
    html: page.part.bytes,
    contentType: page.part.contentType,
    base: page.address,
    address: page.address,
    loader: new PartLoader(parts),
  };
};

/** A record ends with two line ends (ISO 28500, 4); a gzipped one with its checksum (RFC 1952). Throws `cut_off`. */
function checkEnd({ bytes, name }: Got): void {
  const cut = (): never => {
    throw new AppError('cut_off', { name, reason: 'its last record is not complete' }, { field: 'file' });
  };
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) {
    if (!/\r?\n\r?\n$/.test(Buffer.from(bytes.subarray(-4)).toString('latin1'))) cut();
    return;
  }
  try {
    gunzipSync(bytes, { maxOutputLength: ARCHIVE_LIMITS.bytes });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'Z_BUF_ERROR') cut();
  }
}

async function* pieces(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.byteLength; at += 65_536) yield await Promise.resolve(bytes.subarray(at, at + 65_536));
}
