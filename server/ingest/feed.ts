import Parser from 'rss-parser';
import { array, object, string, type InferType } from 'yup';
import { AppError } from '../errors';
import { contentOf, nodesOf, select, type PageTree } from './page-tree';
import { baseOf, decodeHtml, parseHtml } from './parse-html';
import { readDate } from './metadata';
import type { NetworkPolicy } from './network-policy';
import { SafeFetcher } from './safe-fetch';
import type { Fetched } from './loader';

export interface FeedItem {
  /** By what an item is known again: its id, else its address. */
  readonly name: string;
  readonly address: string;
  readonly title: string;
  readonly author: string;
  /** Plain text, at most 400 characters. */
  readonly summary: string;
  readonly publishedAt: string | null;
}

export interface ReadFeed {
  readonly address: string;
  readonly title: string;
  readonly site: string;
  readonly items: readonly FeedItem[];
}

const LIMITS = { bytes: 8 * 1024 * 1024, milliseconds: 15_000, redirects: 5 };
const ACCEPT =
  'application/atom+xml,application/rss+xml,application/feed+json,application/xml;q=0.9,application/json;q=0.9,text/html;q=0.8,*/*;q=0.5';
const MOST_ITEMS = 200;

/** What came of something that may be a feed: what it offers, or the address of the feed that a page names. */
export type ParsedFeed =
  { readonly type: 'feed'; readonly feed: ReadFeed } | { readonly type: 'page'; readonly names: string | null };

/** A feed by its address, or by that of a page that names one. Rejects with `no_feed`, `bad_feed` or why it could not be fetched. */
export async function fetchFeed(
  address: string,
  policy: NetworkPolicy,
  parse: (got: Fetched) => Promise<ParsedFeed>,
): Promise<ReadFeed> {
  const web = new SafeFetcher(policy);
  try {
    const first = await parse(await web.fetch(address, LIMITS, ACCEPT));
    if (first.type === 'feed') return first.feed;
    if (first.names === null) throw new AppError('no_feed', { address }, { field: 'address' });
    const second = await parse(await web.fetch(first.names, LIMITS, ACCEPT));
    if (second.type === 'feed') return second.feed;
    throw new AppError('no_feed', { address: first.names }, { field: 'address' });
  } finally {
    await web.close();
  }
}

export async function parseFeedOrPage({ bytes, contentType, address }: Fetched): Promise<ParsedFeed> {
  const feed = await parseFeed(bytes, contentType, address);
  return feed
    ? { type: 'feed', feed }
    : { type: 'page', names: namedFeed(parseHtml(bytes, address, contentType), address) ?? null };
}

/** For tests and the command line: all in one thread. */
export const readFeed = (address: string, policy: NetworkPolicy): Promise<ReadFeed> =>
  fetchFeed(address, policy, parseFeedOrPage);

/** The feed a page links to (RFC 4287 and the HTML Standard: `rel=alternate` with the type of a feed). */
export function namedFeed(page: PageTree, address: string): string | undefined {
  const base = baseOf(page, address);
  const link = select(page, 'link[rel~="alternate" i][href]').find(
    ({ attribs: { type = '', href = '' } }) =>
      /^application\/(rss\+xml|atom\+xml|feed\+json|json)/i.test(type) && URL.canParse(href, base),
  );
  return link && new URL(link.attribs.href!, base).href;
}

/** RSS 2.0, Atom (RFC 4287) or JSON Feed 1.1. Undefined for what is none of them; throws `bad_feed` for a broken one. */
export async function parseFeed(
  bytes: Uint8Array,
  contentType: string,
  address: string,
): Promise<ReadFeed | undefined> {
  const text = decodeHtml(bytes, contentType).trimStart();
  if (/^\{/.test(text)) return fromJson(text, address);
  if (!/^(rss|feed|rdf:RDF)$/i.test(rootOf(text))) return undefined;
  const parser = new Parser<object, Record<string, unknown>>({
    customFields: { item: ['id', 'author', 'dc:creator', 'content:encoded', 'summary'] },
  });
  const parsed = await parser.parseString(text.replace(DOCTYPE, '')).catch((cause: Error) => {
    throw new AppError('bad_feed', { address, reason: cause.message.split('\n')[0]! });
  });
  const feedAuthor = plain((parsed as { author?: unknown }).author);
  return completed(
    address,
    plain(parsed.title),
    parsed.items.map((item) => {
      const guid = plain(item.guid);
      const link = plain(item.link);
      const id = guid || plain(item.id) || link;
      const content = plain(item['content:encoded']) || plain(item.content);
      return {
        name: id,
        address: link || (/^https?:/.test(guid) ? guid : ''),
        title: textOf(plain(item.title)),
        author: nameIn(plain(item['dc:creator']) || plain(item.creator) || plain(item.author)) || feedAuthor,
        summary: textOf(plain(item.summary) || content),
        publishedAt: plain(item.isoDate) || plain(item.pubDate),
      };
    }),
  );
}

const DOCTYPE = /<!DOCTYPE[^>[]*(?:\[[^\]]*\])?[^>]*>/i;

/** The name of the first element; comments, instructions and a document type may stand before it. */
function rootOf(text: string): string {
  const bare = text
    .slice(0, 20_000)
    .replace(/<\?[\s\S]*?\?>|<!--[\s\S]*?-->/g, '')
    .replace(DOCTYPE, '')
    .trimStart();
  return /^<([A-Za-z:]+)[\s>/]/.exec(bare)?.[1] ?? '';
}

/** The words of whatever the parser made of an element: text, an element with attributes, XHTML (RFC 4287, 3.1.1.3), or several of them. */
function plain(value: unknown): string {
  if (typeof value === 'string') return value.trim();
  if (Array.isArray(value)) return value.map(plain).filter(Boolean).join(' ');
  if (typeof value !== 'object' || value === null) return '';
  return Object.entries(value)
    .filter(([key]) => key !== '$')
    .map(([, inner]) => plain(inner))
    .filter(Boolean)
    .join(' ');
}

/** RSS 2.0 gives an address with the name in parentheses. */
const nameIn = (author: string): string => /\(([^)]+)\)\s*$/.exec(author)?.[1] ?? author;

const jsonFeed = object({
  version: string()
    .required()
    .matches(/^https:\/\/jsonfeed\.org\/version\//),
  title: string().default(''),
  items: array(
    object({
      id: string().default(''),
      url: string(),
      external_url: string(),
      title: string(),
      summary: string(),
      content_text: string(),
      content_html: string(),
      date_published: string(),
      authors: array(object({ name: string() })),
      author: object({ name: string() }).default(undefined),
    }),
  ).required(),
});

function fromJson(text: string, address: string): ReadFeed | undefined {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch (cause) {
    throw new AppError('bad_feed', { address, reason: (cause as Error).message });
  }
  if (!/jsonfeed\.org/.test(String((given as { version?: unknown }).version))) return undefined;
  let feed;
  try {
    feed = jsonFeed.validateSync(given);
  } catch (cause) {
    throw new AppError('bad_feed', { address, reason: (cause as Error).message });
  }
  return completed(
    address,
    feed.title,
    feed.items.map((item) => ({
      name: item.id || item.url || item.external_url || '',
      address: item.url ?? item.external_url ?? (/^https?:/.test(item.id) ? item.id : ''),
      title: item.title ?? '',
      author: authorsOf(item),
      summary: item.summary ?? item.content_text ?? textOf(item.content_html ?? ''),
      publishedAt: item.date_published ?? '',
    })),
  );
}

type JsonItem = InferType<typeof jsonFeed>['items'][number];

/** Of version 1.1; else of version 1.0, where there is one at most. */
const authorsOf = ({ authors, author }: JsonItem): string =>
  (authors ?? [])
    .map(({ name }) => name)
    .filter(Boolean)
    .join('; ') ||
  (author?.name ?? '');

const textOf = (html: string): string => (/[<&]/.test(html) ? contentOf(nodesOf(html)) : html);
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

function completed(
  address: string,
  title: string,
  items: readonly (Omit<FeedItem, 'publishedAt'> & { readonly publishedAt: string })[],
): ReadFeed {
  const seen = new Set<string>();
  const site = new URL(address).hostname.replace(/^www\./, '');
  const kept: FeedItem[] = [];
  for (const item of items) {
    if (
      !item.name ||
      seen.has(item.name) ||
      !URL.canParse(item.address, address) ||
      !/^https?:/.test(new URL(item.address, address).href) ||
      kept.length >= MOST_ITEMS
    )
      continue;
    seen.add(item.name);
    const summary = oneLine(item.summary);
    kept.push({
      name: item.name,
      address: new URL(item.address, address).href,
      title: oneLine(item.title) || summary.slice(0, 80) || item.address,
      author: oneLine(item.author),
      summary: summary.length > 400 ? `${summary.slice(0, 398)}…` : summary,
      publishedAt: readDate(item.publishedAt),
    });
  }
  return { address, title: oneLine(title) || site, site, items: kept };
}
