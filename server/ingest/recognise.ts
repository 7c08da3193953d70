import { fileTypeFromBuffer } from 'file-type';
import { AppError } from '../errors';
import { isMarkedText, looksBinary } from './decode-text';
import type { Got } from './got';

export type Format =
  | 'html'
  | 'markdown'
  | 'text'
  | 'csv'
  | 'pdf'
  | 'book'
  | 'document'
  | 'image'
  | 'audio'
  | 'video'
  | 'letter'
  | 'archive'
  | 'web-archive'
  | 'saved-page'
  | 'transcript';

const BY_ENDING: Readonly<Record<string, Format>> = {
  html: 'html',
  htm: 'html',
  xhtml: 'html',
  md: 'markdown',
  markdown: 'markdown',
  txt: 'text',
  text: 'text',
  csv: 'csv',
  tsv: 'csv',
  pdf: 'pdf',
  epub: 'book',
  docx: 'document',
  eml: 'letter',
  mht: 'saved-page',
  mhtml: 'saved-page',
  warc: 'web-archive',
  vtt: 'transcript',
  srt: 'transcript',
  svg: 'image',
  zip: 'archive',
  mp3: 'audio',
  ogg: 'audio',
  oga: 'audio',
  opus: 'audio',
  wav: 'audio',
  m4a: 'audio',
  flac: 'audio',
  mp4: 'video',
  m4v: 'video',
  webm: 'video',
  ogv: 'video',
  png: 'image',
  jpg: 'image',
  jpeg: 'image',
  gif: 'image',
  webp: 'image',
  avif: 'image',
};
const BY_TYPE: Readonly<Record<string, Format>> = {
  'text/html': 'html',
  'application/xhtml+xml': 'html',
  'text/markdown': 'markdown',
  'text/plain': 'text',
  'text/csv': 'csv',
  'text/tab-separated-values': 'csv',
  'application/pdf': 'pdf',
  'application/epub+zip': 'book',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'document',
  'message/rfc822': 'letter',
  'multipart/related': 'saved-page',
  'application/warc': 'web-archive',
  'text/vtt': 'transcript',
  'application/x-subrip': 'transcript',
  'image/svg+xml': 'image',
  'application/zip': 'archive',
};
const TEXTS: ReadonlySet<Format> = new Set(['html', 'markdown', 'text', 'csv', 'letter', 'saved-page', 'transcript']);

/**
 * What a file is. Where its first bytes tell, they are believed rather than its name or the type a site sent; among
 * texts, name and type decide. Throws `empty_file`, `wrong_type` for what Avrelle does not keep.
 */
export async function recognise(got: Got): Promise<Recognised> {
  const { bytes, name, contentType, address } = got;
  if (bytes.byteLength === 0) throw new AppError('empty_file', { name }, { field: 'file' });
  const sent = contentType.split(';')[0]!.trim().toLowerCase();
  const ending = BY_ENDING[endingOf(name)];
  const found = await magic(bytes);
  if (found) {
    const format = byMagic(found, ending);
    if (!format)
      throw new AppError('wrong_type', { address: name, type: found }, address === null ? { field: 'file' } : {});
    return { format, mediaType: found };
  }
  return bySaying(got, sent, ending);
}

interface Recognised {
  readonly format: Format;
  readonly mediaType: string;
}

/** By what a file is called, or a site says it is. */
function bySaying({ bytes, name, address }: Got, sent: string, ending: Format | undefined): Recognised {
  const said = saidBy(sent);
  // What a site says goes before a name; of a file that is at hand there is only its name.
  const format = (address === null ? ending : said) ?? ending ?? said ?? 'text';
  if (TEXTS.has(format) && !looksBinary(bytes)) return { format: asText(format, ending, bytes), mediaType: sent };
  if (looksLikeHtml(bytes)) return { format: 'html', mediaType: 'text/html' };
  if (format === 'image' && looksLikeSvg(bytes)) return { format, mediaType: 'image/svg+xml' };
  if (!TEXTS.has(format)) throw otherContent(name, format);
  throw noText(name, address, said === undefined ? sent : '');
}

const otherContent = (name: string, format: Format): AppError =>
  new AppError('wrong_content', { name, format: FORMAT_WORDS[format] ?? format }, { field: 'file' });
const noText = (name: string, address: string | null, type: string): AppError =>
  address === null
    ? new AppError('not_text', { name }, { field: 'file' })
    : new AppError('wrong_type', { address, type: type || 'binary data' });

/** By the type a site sent. */
const saidBy = (type: string): Format | undefined => BY_TYPE[type] ?? (/^image\//.test(type) ? 'image' : undefined);
/** Plain text that nobody calls otherwise may be a page after all. */
const asText = (format: Format, ending: Format | undefined, bytes: Uint8Array): Format =>
  format === 'text' && ending === undefined && looksLikeHtml(bytes) ? 'html' : format;

const endingOf = (name: string): string => /\.([a-z0-9]+)$/i.exec(name.replace(/\.gz$/i, ''))?.[1]?.toLowerCase() ?? '';

const FORMAT_WORDS: Partial<Record<Format, string>> = {
  pdf: 'PDF',
  book: 'EPUB',
  document: 'word-processor',
  image: 'picture',
  audio: 'sound',
  video: 'film',
  archive: 'zip',
  'web-archive': 'WARC',
};

async function magic(bytes: Uint8Array): Promise<string | undefined> {
  const head = Buffer.from(bytes.subarray(0, 1024)).toString('latin1');
  // A PDF may begin with up to 1,024 bytes of something else (ISO 32000-1, annex H, note 13).
  if (/%PDF-\d/.test(head)) return 'application/pdf';
  if (/^WARC\/\d/.test(head)) return 'application/warc';
  if (isMarkedText(bytes)) return undefined;
  // The library works on copies where it needs them; a bad file makes it throw.
  return fileTypeFromBuffer(bytes).then(
    (type) => type?.mime,
    () => undefined,
  );
}

function byMagic(type: string, ending: Format | undefined): Format | undefined {
  const [, format, unlessIts] = MAGIC.find(([types]) => types.test(type)) ?? [];
  if (format) return ending !== undefined && ending === unlessIts ? ending : format;
  return BY_TYPE[type] ?? (/zip/.test(type) && ending ? ending : undefined);
}

/** What the first bytes tell, and what a file of these is where its name says so. */
const MAGIC: readonly (readonly [types: RegExp, is: Format, unless?: Format])[] = [
  [/^application\/gzip$/, 'web-archive'],
  [/^image\/(png|jpeg|gif|webp|avif|bmp|apng)$/, 'image'],
  [/^audio\//, 'audio'],
  [/^video\/(mp4|webm|ogg|quicktime|x-m4v|matroska)$/, 'video', 'audio'],
  [/^application\/ogg$/, 'audio', 'video'],
  [/^application\/xml$/, 'html', 'image'],
  [/^application\/x-subrip$|^text\/vtt$/, 'transcript'],
  [/^text\/html$/, 'html'],
];

const start = (bytes: Uint8Array): string =>
  Buffer.from(bytes.subarray(0, 2_000)).toString('latin1').trimStart().toLowerCase();
const looksLikeHtml = (bytes: Uint8Array): boolean => /^(<!doctype html|<html|<head|<body)/.test(start(bytes));
const looksLikeSvg = (bytes: Uint8Array): boolean => /<svg[\s>]/.test(start(bytes));
