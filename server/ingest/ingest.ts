import { mainText, NEWEST_RULES, readingMinutes, readTree, RULES_ATTRIBUTE, textDirection } from '@avrelle/core/text';
import { hashOf } from '../db/blobs';
import { AppError } from '../errors';
import { AssetCollector, favicon, makeSelfContained } from './assets';
import { canonicalAddress } from './canonical';
import { decoded } from './decoded';
import { escapeHtml } from './documents';
import { NOWHERE, type Loader } from './loader';
import { markHidden } from './hidden';
import { asTextTree, settled } from './light-tree';
import { isQuirky, serializeTree, type PageTree } from './page-tree';
import { markAsides } from './main-text';
import type { Got } from './got';
import type { Ingested, IngestInput, Progress } from './ingested';
import type { Made, RawPage, ReadyPage, Tools } from './made';
import { readMetadata, type Metadata } from './metadata';
import type { NetworkPolicy } from './network-policy';
import { baseOf, parseHtml } from './parse-html';
import { readFormat } from './formats/read-format';
import { checkRobots } from './robots';
import { PartsAtHand, type PartAtHand, type WantedPart } from './page-fetch';
import { PAGE_LIMITS, SafeFetcher } from './safe-fetch';
import { sanitise } from './sanitise';
import { looksScripted } from './scripted';
import { shape } from './shape';

/** From an address or a file to a version. Rejects with an AppError that says what to do. */
export async function ingest(
  input: IngestInput,
  policy: NetworkPolicy,
  progress: Progress = () => undefined,
): Promise<Ingested> {
  if (input.type === 'shape') return shape(input.ingested, input.choices);
  const web = new SafeFetcher(policy);
  try {
    const got = gotOf(input) ?? (await fromAddress(input as AddressInput, web, progress));
    progress('Reading', 0.2);
    const loader = input.parts ? new PartsAtHand(input.parts) : web;
    const ingested = await build(await readFormat(got, toolsOf(input, loader, progress)), got, progress);
    return input.type === 'address' && input.choices ? shape(ingested, input.choices) : ingested;
  } catch (error) {
    const name = input.type === 'address' ? input.address : input.name;
    if (error instanceof RangeError)
      throw new AppError('unreadable', { address: name, reason: 'its elements are nested too deeply' });
    // A file has no address: it is called by its name.
    if (error instanceof AppError && error.values.address === NOWHERE)
      throw new AppError(error.code, { ...error.values, address: name }, error.extra);
    throw error;
  } finally {
    await web.close();
  }
}

/** What a page shows with and is not at hand yet. */
export async function wantedParts(
  input: Exclude<IngestInput, { type: 'shape' }>,
  known: readonly PartAtHand[],
): Promise<readonly WantedPart[]> {
  const got = gotOf(input);
  const loader = new PartsAtHand(known);
  const made =
    got &&
    (await readFormat(
      got,
      toolsOf(input, loader, () => undefined),
    ));
  if (made?.form !== 'raw') return [];
  const page = open(made, got?.address ?? made.address ?? null);
  await bringAlong(page, made, new AssetCollector(made.loader));
  return loader.wanted;
}

type AddressInput = Extract<IngestInput, { type: 'address' }>;

/** What there is to be read; undefined where it has to be fetched first. */
function gotOf(input: Exclude<IngestInput, { type: 'shape' }>): Got | undefined {
  const found =
    input.type === 'address' ? input.got : { name: input.name, bytes: input.bytes, contentType: '', address: null };
  return found && input.encoding ? { ...found, encoding: input.encoding } : found;
}

function toolsOf(input: Exclude<IngestInput, { type: 'shape' }>, web: Loader, progress: Progress): Tools {
  return input.type === 'file'
    ? { web, progress, password: input.password, transcript: input.transcript, remote: input.remote }
    : { web, progress };
}

/** The page or file at an address, with a connection of its own; what it consists of is fetched as it is read. */
export async function fetchPage(
  input: Extract<IngestInput, { type: 'address' }>,
  policy: NetworkPolicy,
  progress: Progress,
): Promise<Got> {
  const web = new SafeFetcher(policy);
  return fromAddress(input, web, progress).finally(() => web.close());
}

async function fromAddress(
  { address, polite }: Extract<IngestInput, { type: 'address' }>,
  web: SafeFetcher,
  progress: Progress,
): Promise<Got> {
  progress('Fetching', 0.05);
  if (polite) await checkRobots(address, web);
  let got = await web.fetch(address, PAGE_LIMITS);
  for (let hop = 0; hop < MOST_REFRESHES; hop++) {
    const next = refreshOf(got);
    if (next === undefined) break;
    // Where it cannot be had, the page that leads there is what there is.
    const led = await web.fetch(next, PAGE_LIMITS).catch((error: unknown) => {
      if (error instanceof AppError) return undefined;
      throw error;
    });
    if (!led) break;
    got = led;
  }
  return { ...got, name: lastPart(got.address) };
}

const MOST_REFRESHES = 3;
/** Characters of a page that only says where it leads. */
const MOST_LEADING = 400;
/** Seconds up to which a refresh leads on; later it is for people who have read the page. */
const AT_ONCE = 5;

/** Where a page leads that is there only to lead on (HTML Standard, 4.2.5.3, refresh). */
function refreshOf({
  bytes,
  address,
  contentType,
}: {
  bytes: Uint8Array;
  address: string;
  contentType: string;
}): string | undefined {
  if (bytes.byteLength > 16_384 || !/html|^$/i.test(contentType)) return undefined;
  const html = Buffer.from(bytes).toString('latin1');
  const tag = /<meta[^>]+http-equiv\s*=\s*["']?refresh["']?[^>]*>/i.exec(html)?.[0];
  const [, seconds, to] = /content\s*=\s*["']?\s*(\d+)[^"'>]*?[;,]\s*url\s*=\s*["']?([^"'>\s]+)/i.exec(tag ?? '') ?? [];
  if (to === undefined || Number(seconds) > AT_ONCE || !URL.canParse(to, address)) return undefined;
  const words = html
    .replace(/<(script|style|head)[\s\S]*?<\/\1>/gi, '')
    .replace(/<[^>]*>/g, '')
    .trim();
  if (words.length > MOST_LEADING) return undefined;
  const next = new URL(to, address);
  return /^https?:$/.test(next.protocol) && next.href !== address ? next.href : undefined;
}

function lastPart(address: string): string {
  return decoded(new URL(address).pathname.split('/').filter(Boolean).at(-1) ?? new URL(address).hostname);
}

async function build(made: Made, got: Got, progress: Progress): Promise<Ingested> {
  if (made.form === 'ready')
    return finish({ ...made, bodyClass: '', rootClass: '' }, made.meta ?? {}, got, got.address);
  const address = got.address ?? made.address ?? null;
  const page = open(made, address);
  const { tree, base, meta } = page;
  const scripted = made.kind === 'page' && looksScripted(tree);
  progress('Bringing pictures and styles along', 0.45);
  const collector = new AssetCollector(made.loader);
  const [styles, icon, lead] = await bringAlong(page, made, collector);
  progress('Making it safe', 0.75);
  const clean = sanitise(tree, base);
  progress('Reading the text', 0.85);
  const facts = { ...made.facts, ...(scripted ? { scripted: true as const } : {}) };
  return finish(
    {
      ...made,
      form: 'ready',
      styles,
      collector,
      ...clean,
      icon,
      facts,
      doctype: isQuirky(tree) ? '' : '<!doctype html>',
    },
    { ...meta, lead: lead ?? null },
    got,
    address,
  );
}

interface OpenPage {
  readonly tree: PageTree;
  readonly base: string;
  readonly meta: Metadata;
}

function open(made: RawPage, address: string | null): OpenPage {
  const own = made.base ?? address ?? NOWHERE;
  const tree = parseHtml(made.html, own, made.contentType ?? 'text/html');
  return {
    tree,
    base: baseOf(tree, own),
    meta: { ...readMetadata(tree, address ?? NOWHERE), ...given(made.meta) },
  };
}

/** Its styles, the site's sign and the picture that stands for it; what it shows with is inside then. */
const bringAlong = ({ tree, base, meta }: OpenPage, made: RawPage, collector: AssetCollector) =>
  Promise.all([
    makeSelfContained(tree, base, collector),
    favicon(tree, base, collector),
    made.kind === 'page' && meta.lead ? collector.resolve(meta.lead) : undefined,
  ]);

/** What a format's reader knows stands before what the page says; what it does not know does not. */
const given = (meta: Partial<Metadata> = {}): Partial<Metadata> =>
  Object.fromEntries(Object.entries(meta).filter(([, value]) => value !== '' && value !== null && value !== undefined));

interface Clean extends ReadyPage {
  /** A page that was written without one is laid out as such pages are (HTML Standard, 13.2.6.4.1, quirks). */
  readonly doctype?: string;
  readonly bodyClass: string;
  readonly rootClass: string;
  /** As the page says them; where it says none, the text does. */
  readonly bodyDirection?: string;
  readonly rootDirection?: string;
  readonly icon?: string | undefined;
}

const LEAST_TO_KNOW = 400;

/** The stream is read from the very tree that what is stored parses to, as in a browser. */
function finish(page: Clean, known: Partial<Metadata>, got: Got, address: string | null): Ingested {
  const meta = completed(known, got, address);
  const { collector } = page;
  const { html, tree } = settled(assemble(page, meta));
  const snapshot = page.kind === 'page' ? withAsides(tree, meta.title) : html;
  const { text, outline, inlines } = readTree(asTextTree(tree));
  if (!text.trim()) throw new AppError('empty_page', { address: got.address ?? got.name });
  const lead = leadOf(meta);
  const main = mainText(text, outline);
  const missing = missingOf(page);
  return {
    kind: page.kind,
    amount: page.kind === 'image' ? 'picture' : 'whole',
    snapshot,
    text,
    outline,
    inlines,
    meta,
    address,
    lead,
    missing,
    width: null,
    assets: collector.assets.filter(({ hash }) => hash === lead || snapshot.includes(hash)),
    minutes: readingMinutes(main),
    file: page.file ?? null,
    facts: { ...page.facts, ...(missing.length ? { missing: missing.length } : {}) },
    fingerprint: page.identity ?? fingerprintOf(page.file?.bytes, main),
    canonical: address === null ? null : canonicalAddress(sameSite(meta.canonical, address) ?? address),
  };
}

/** The hash of the picture that stands for it. */
const leadOf = ({ lead }: Metadata): string | null => /^asset\/([0-9a-f]{64})$/.exec(lead ?? '')?.[1] ?? null;
/** What a letter was not to fetch is not missing. */
const missingOf = ({ kind, facts, collector }: Clean): readonly string[] =>
  kind === 'letter' && facts?.remote ? [] : collector.missing;

/** Attributes alone are set, so that it parses to the same tree still. */
function withAsides(tree: PageTree, title: string): string {
  markHidden(tree);
  markAsides(tree, title);
  return serializeTree(tree);
}

const bareHost = (address: string): string => new URL(address).hostname.replace(/^www\./, '');
/** A page may name its canonical address only within its own site. */
const sameSite = (canonical: string | null, address: string): string | null =>
  canonical && bareHost(canonical) === bareHost(address) ? canonical : null;

/** By its file, else by a main text that is long enough to tell. */
function fingerprintOf(file: Uint8Array | undefined, main: string): string {
  if (file) return `sha256:${hashOf(file)}`;
  return main.length >= LEAST_TO_KNOW ? `text:${hashOf(Buffer.from(main))}` : '';
}

function completed(meta: Partial<Metadata>, got: Got, address: string | null): Metadata {
  const host = address === null ? '' : bareHost(address);
  const site = meta.site && meta.site !== 'file.invalid' ? meta.site : host;
  return {
    title: meta.title || got.name,
    author: meta.author ?? '',
    site,
    description: meta.description ?? '',
    language: meta.language ?? '',
    publishedAt: meta.publishedAt ?? null,
    canonical: meta.canonical ?? null,
    doi: meta.doi ?? '',
    lead: meta.lead ?? null,
  };
}

function assemble(page: Clean, meta: Metadata): string {
  const { body, styles = [], icon, doctype = '<!doctype html>' } = page;
  const sheets = styles.map(({ css, media }) => `<style${attributes({ media })}>${css}</style>`).join('\n');
  const head = `<meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escapeHtml(meta.title)}</title>`;
  const root = {
    lang: meta.language,
    ...directionOf(page, meta.language),
    class: page.rootClass,
    [RULES_ATTRIBUTE]: NEWEST_RULES,
  };
  return `${doctype}<html${attributes(root)}><head>${head}${icon ? `<link rel="icon" href="${icon}">` : ''}${sheets}</head><body${attributes({ dir: page.bodyDirection, class: page.bodyClass })}>${body}</body></html>`;
}

const attributes = (all: Readonly<Record<string, string | undefined>>): string =>
  Object.entries(all)
    .map(([name, value]) => (value ? ` ${name}="${escapeHtml(value)}"` : ''))
    .join('');

/** As the page says it; else by most of its letters, or its language. Left to right needs no word, as browsers have it. */
function directionOf(
  { rootDirection, bodyDirection, body }: Clean,
  language: string,
): Readonly<Record<string, string>> {
  if (rootDirection || bodyDirection) return rootDirection ? { dir: rootDirection } : {};
  const words = body.replace(/<[^>]*>|&#?\w+;/g, ' ');
  return textDirection(words, language) === 'rtl' ? { dir: 'rtl', [GUESSED_DIRECTION]: 'guessed' } : {};
}

const GUESSED_DIRECTION = 'data-avrelle-dir';
