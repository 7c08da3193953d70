import { mainText, readingMinutes, readTree, type Outline } from '@avrelle/core/text';
import type { SourceKind } from '@avrelle/core/wire';
import { AppError } from '../errors';
import { AssetCollector, makeSelfContained, type Asset } from './assets';
import { canonicalAddress } from './canonical';
import { decodeText, looksBinary } from './decode-text';
import { escapeHtml, markdownToHtml, textToHtml } from './documents';
import { markAsides } from './main-text';
import { readMetadata, type Metadata } from './metadata';
import type { NetworkPolicy } from './network-policy';
import { parseHtml } from './parse-html';
import { PAGE_LIMITS, SafeFetcher } from './safe-fetch';
import { sanitise } from './sanitise';

export type IngestInput =
  | { readonly type: 'address'; readonly address: string }
  | { readonly type: 'file'; readonly name: string; readonly bytes: Uint8Array };

/** A source made ready to be stored: nothing of it needs the network any more. */
export interface Ingested {
  readonly kind: SourceKind;
  /** HTML whose pictures, styles and fonts are named `asset/HASH`. */
  readonly snapshot: string;
  readonly assets: readonly Asset[];
  readonly text: string;
  readonly outline: Outline;
  readonly minutes: number;
  /** Where it was fetched from, redirects followed; null for a file. */
  readonly address: string | null;
  readonly canonical: string | null;
  readonly meta: Metadata;
  /** Addresses of pictures, styles and fonts that could not be had. */
  readonly missing: readonly string[];
}

export type Progress = (step: string, share: number) => void;

/** From an address or a file to a version. Rejects with an AppError that says what to do. */
export async function ingest(input: IngestInput, policy: NetworkPolicy, progress: Progress = () => undefined): Promise<Ingested> {
  const fetcher = new SafeFetcher(policy);
  try {
    progress('Fetching', 0.05);
    const raw = input.type === 'address' ? await fromAddress(input.address, fetcher) : fromFile(input);
    progress('Reading', 0.3);
    return await build(raw, input.type === 'address' ? fetcher : undefined, progress);
  } catch (error) {
    throw error instanceof RangeError ? new AppError('unreadable', { address: input.type === 'address' ? input.address : input.name, reason: 'its elements are nested too deeply' }) : error;
  } finally {
    await fetcher.close();
  }
}

interface Raw {
  readonly kind: SourceKind;
  readonly html: Uint8Array | string;
  readonly contentType: string;
  readonly address: string | null;
  /** What to call it in a message. */
  readonly name: string;
}

async function fromAddress(address: string, fetcher: SafeFetcher): Promise<Raw> {
  const got = await fetcher.fetch(address, PAGE_LIMITS);
  const type = got.contentType.split(';')[0]!.trim().toLowerCase();
  const base = { address: got.address, name: got.address };
  const nameOf = (): string => decodeURIComponent(new URL(got.address).pathname.split('/').filter(Boolean).at(-1) ?? got.address);
  if (type === 'text/markdown') return { ...base, kind: 'markdown', html: markdownToHtml(decodeText(got.bytes, got.address), nameOf()), contentType: 'text/html' };
  if (type === 'text/plain') return { ...base, kind: 'text', html: textToHtml(decodeText(got.bytes, got.address), nameOf()), contentType: 'text/html' };
  const isPage = type === 'text/html' || type === 'application/xhtml+xml' || (type === '' && !looksBinary(got.bytes));
  if (!isPage || looksBinary(got.bytes)) throw new AppError('wrong_type', { address: got.address, type: isPage ? 'binary data' : type });
  return { ...base, kind: 'page', html: got.bytes, contentType: got.contentType || 'text/html' };
}

function fromFile({ name, bytes }: { name: string; bytes: Uint8Array }): Raw {
  const title = name.replace(/\.[^.]+$/, '');
  const base = { address: null, name, contentType: 'text/html' };
  if (/\.(md|markdown)$/i.test(name)) return { ...base, kind: 'markdown', html: markdownToHtml(decodeText(bytes, name), title) };
  if (/\.(html?|xhtml)$/i.test(name)) {
    if (looksBinary(bytes) && !(bytes[0] === 0xff || bytes[0] === 0xfe)) throw new AppError('not_text', { name }, { field: 'file' });
    return { ...base, kind: 'page', html: bytes };
  }
  return { ...base, kind: 'text', html: textToHtml(decodeText(bytes, name), title) };
}

const NOWHERE = 'https://file.invalid/';

async function build(raw: Raw, fetcher: SafeFetcher | undefined, progress: Progress): Promise<Ingested> {
  const document = parseHtml(raw.html, raw.address ?? NOWHERE, raw.contentType);
  const base = document.baseURI;
  const meta = fileMetadata(readMetadata(document, raw.address ?? NOWHERE), raw);
  progress('Bringing pictures and styles along', 0.45);
  const collector = new AssetCollector(fetcher);
  const styles = await makeSelfContained(document, base, collector);
  progress('Making it safe', 0.75);
  const { body, bodyClass, rootClass } = sanitise(document, base);
  const snapshot = assemble(body, { styles, bodyClass, rootClass, meta });
  progress('Reading the text', 0.85);
  return finish(snapshot, raw, meta, collector);
}

/** The stream is read from the very string that is stored, parsed once more, as a browser will parse it. */
function finish(draft: string, raw: Raw, meta: Metadata, collector: AssetCollector): Ingested {
  const clean = parseHtml(draft, raw.address ?? NOWHERE);
  if (raw.kind === 'page') markAsides(clean, meta.title);
  const snapshot = `<!doctype html>\n${clean.documentElement.outerHTML}`;
  const { text, outline } = readTree(parseHtml(snapshot, raw.address ?? NOWHERE).documentElement);
  if (!text.trim()) throw new AppError('empty_page', { address: raw.name });
  const used = collector.assets.filter(({ hash }) => snapshot.includes(hash));
  return {
    kind: raw.kind, snapshot, assets: used, text, outline, meta, address: raw.address, missing: collector.missing,
    minutes: readingMinutes(mainText(text, outline)),
    canonical: raw.address === null ? null : canonicalAddress(sameSite(meta.canonical, raw.address) ?? raw.address),
  };
}

/** A page may name its canonical address only within its own site. */
const sameSite = (canonical: string | null, address: string): string | null => (canonical && new URL(canonical).hostname === new URL(address).hostname ? canonical : null);

function fileMetadata(meta: Metadata, raw: Raw): Metadata {
  const title = meta.title || raw.name;
  return raw.address === null ? { ...meta, title, site: meta.site === 'file.invalid' ? '' : meta.site } : { ...meta, title };
}

function assemble(body: string, { styles, bodyClass, rootClass, meta }: { styles: readonly { css: string; media: string }[]; bodyClass: string; rootClass: string; meta: Metadata }): string {
  const attribute = (name: string, value: string): string => (value ? ` ${name}="${escapeHtml(value)}"` : '');
  const sheets = styles.map(({ css, media }) => `<style${attribute('media', media)}>${css}</style>`).join('\n');
  return `<!doctype html><html${attribute('lang', meta.language)}${attribute('class', rootClass)}><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escapeHtml(meta.title)}</title>${sheets}</head><body${attribute('class', bodyClass)}>${body}</body></html>`;
}
