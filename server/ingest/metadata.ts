import { closest, contentOf, fits, parentOf, rootOf, select, selectOne, within, type PageElement, type PageTree } from './page-tree';

export interface Metadata {
  readonly title: string;
  /** Names, parted by `; ` where there are several. */
  readonly author: string;
  readonly site: string;
  readonly description: string;
  /** BCP 47, as the page says it; '' when it does not. */
  readonly language: string;
  /** RFC 3339 date or date-time, or only its year or month; null when the page says none that can be read. */
  readonly publishedAt: string | null;
  readonly canonical: string | null;
  /** Digital object identifier, as in `10.5555/marsh.7`; '' for none. */
  readonly doi: string;
  /** Address of the picture that stands for the page. */
  readonly lead: string | null;
}

/**
 * Reads what a page says of itself: scholarly `citation_*` tags first, then Dublin Core, schema.org (JSON-LD, then
 * microdata), Open Graph, microformats (h-entry), and plain HTML last.
 */
export function readMetadata(tree: PageTree, address: string): Metadata {
  const meta = metaTags(tree);
  const linked = jsonLd(tree);
  const micro = microformats(tree);
  const root = rootOf(tree).attribs;
  const title = selectOne(tree, 'head > title') ?? selectOne(tree, 'title');
  const titleWords = title ? contentOf(title) : '';
  const pick = (...values: (string | undefined | null)[]): string => values.map((v) => clean(v)).find(Boolean) ?? '';
  const all = (name: string): string => (meta.get(name) ?? []).map((v) => clean(v)).filter((v) => !/^https?:/i.test(v)).join('; ');
  const first = (name: string): string | undefined => meta.get(name)?.[0];
  // Searching the whole page costs much: what may say something is looked for once.
  const telling = select(tree, TELLING);
  const found = (selector: string): PageElement | undefined => telling.find(fits(selector));
  const text = (selector: string): string | undefined => words(found(selector));
  const attribute = (selector: string, name: string): string | undefined => found(selector)?.attribs[name];
  return {
    title: plainTitle(pick(first('citation_title'), first('dc.title'), linked.headline, first('og:title'), micro.name, text('[itemprop=headline]'), headingOf(tree, titleWords), titleWords)),
    author: pick(all('citation_author'), first('citation_authors')?.replace(/\s*;\s*/g, '; '), all('dc.creator'), linked.author, all('author'), all('article:author'), micro.author, listed(telling, '[itemprop=author]'), text('[rel~=author]')),
    site: pick(first('citation_journal_title'), first('citation_conference_title'), first('og:site_name'), first('dc.publisher'), linked.publisher, first('application-name'), new URL(address).hostname.replace(/^www\./, '')),
    description: pick(first('description'), first('dc.description'), first('og:description'), linked.description, micro.summary).slice(0, 600),
    language: pick(root.lang, root['xml:lang'], first('citation_language'), first('dc.language'), linked.inLanguage, first('og:locale')?.replace('_', '-')).slice(0, 35),
    publishedAt: readDate(pick(first('citation_publication_date'), first('citation_date'), first('citation_online_date'), first('dc.date'), first('dc.date.issued'), linked.datePublished, first('article:published_time'), micro.published, attribute('[itemprop=datePublished]', 'content'), attribute('[itemprop=datePublished]', 'datetime'), first('date'), attribute('time[datetime]', 'datetime'))),
    canonical: absolute(attribute('link[rel~=canonical]', 'href') ?? first('og:url'), address),
    doi: readDoi(pick(first('citation_doi'), first('dc.identifier'), first('dc.identifier.doi'), linked.doi, attribute('a[href*="doi.org/10."]', 'href'))),
    lead: absolute(first('og:image') ?? first('og:image:url') ?? linked.image ?? attribute('.h-entry .u-photo', 'src') ?? attribute('[itemprop=image]', 'src'), address),
  };
}

/** Elements asked for below. */
const TELLING = '[itemprop], [rel~=author], [rel~=canonical], time[datetime], a[href*="doi.org/10."], .h-entry .u-photo';

/** Without the sign by which a heading links to itself (common practice: ¶, #, §, a chain). */
const plainTitle = (title: string): string => title.replace(/[\s\u00A0]*(?:[¶§#🔗⚓]|\uF0C1)\uFE0F?$/u, '').trim() || title;

/** The one heading of the first level; where there are several, they head sections, and the title is the page's. */
function headingOf(tree: PageTree, title: string): string | undefined {
  const headings = select(tree, 'h1');
  const [only] = headings;
  if (!only) return undefined;
  const known = clean(title).includes(plainTitle(clean(contentOf(only))));
  if (headings.length > 1 && title.trim() && !known) return undefined;
  return wordsWithout(only, isSign);
}

const isSign = fits('.headerlink, .anchor, .permalink, [aria-hidden=true]');

function wordsWithout(element: PageElement, leftOut: (inner: PageElement) => boolean): string {
  return element.children
    .map((child) => (!('attribs' in child) ? contentOf(child) : leftOut(child) ? '' : wordsWithout(child, leftOut)))
    .join('');
}

const words = (element: PageElement | undefined): string | undefined => element && contentOf(element);
const clean = (text: string | undefined | null): string => (text ?? '').replace(/\s+/g, ' ').trim();

/** By name in lower case; `DC.x`, `DCTERMS.x` and `dc:x` are one. */
function metaTags(tree: PageTree): ReadonlyMap<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { attribs } of select(tree, 'meta[content]')) {
    const given = (attribs.name ?? attribs.property ?? attribs.itemprop ?? '').toLowerCase();
    const name = given.replace(/^(dcterms|dc)[.:]/, 'dc.').replace(/^bepress_citation_/, 'citation_');
    const content = attribs.content ?? '';
    if (name && content.trim()) found.set(name, [...(found.get(name) ?? []), content]);
  }
  return found;
}

function listed(elements: readonly PageElement[], selector: string): string {
  const names = elements
    .filter(fits(selector))
    .map((el) => clean(words(selectOne(el, '[itemprop=name]')) ?? el.attribs.content ?? contentOf(el)));
  return [...new Set(names.filter((name) => name && name.length < 100))].join('; ');
}

const isEntry = fits('.h-entry');
const isQuoted = fits('.h-cite, .h-entry');

/** microformats2: what an h-entry says of itself (https://microformats.org/wiki/h-entry), not of what it quotes. */
function microformats(tree: PageTree): Partial<Record<'name' | 'author' | 'published' | 'summary', string>> {
  const entries = within(tree, isEntry);
  const entry = entries.length === 1 ? entries[0]! : undefined;
  if (!entry) return {};
  const of = (name: string): PageElement | undefined =>
    select(entry, name).find((el) => closest(parentOf(el)!, isQuoted) === entry);
  const author = of('.p-author');
  const published = of('.dt-published');
  return {
    name: clean(words(of('.p-name'))),
    author: clean(words((author && selectOne(author, '.p-name')) ?? author)),
    published: published?.attribs.datetime ?? clean(words(published)),
    summary: clean(words(of('.p-summary'))),
  };
}

type Linked = Partial<Record<'headline' | 'author' | 'publisher' | 'description' | 'inLanguage' | 'datePublished' | 'doi' | 'image', string>>;

/** The first schema.org thing that has a headline or an author; broken JSON is passed over. */
function jsonLd(tree: PageTree): Linked {
  for (const script of select(tree, 'script[type="application/ld+json"]')) {
    try {
      const thing = candidates(JSON.parse(contentOf(script))).find((t) => t.headline || t.author);
      if (thing) {
        return {
          headline: text(thing.headline ?? thing.name), author: names(thing.author), publisher: names(thing.publisher ?? thing.isPartOf), description: text(thing.description),
          inLanguage: text(thing.inLanguage), datePublished: text(thing.datePublished ?? thing.dateCreated), doi: identifiers(thing).find((id) => DOI.test(id)) ?? '', image: pictureOf(thing.image),
        };
      }
    } catch { /* a page's broken metadata is no reason to fail */ }
  }
  return {};
}

function candidates(data: unknown): Record<string, unknown>[] {
  if (Array.isArray(data)) return data.flatMap(candidates);
  if (typeof data !== 'object' || data === null) return [];
  const record = data as Record<string, unknown>;
  return [record, ...candidates(record['@graph']), ...candidates(record.mainEntity)];
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);
const text = (value: unknown): string => (typeof value === 'string' ? value : '');
const names = (value: unknown): string => (Array.isArray(value) ? value.map(names).filter(Boolean).join('; ') : isRecord(value) ? text(value.name) || [text(value.givenName), text(value.familyName)].filter(Boolean).join(' ') : text(value));
const identifiers = (thing: Record<string, unknown>): string[] => [thing.identifier, thing.sameAs, thing['@id']].flat().map((value) => (isRecord(value) ? text(value.value) : text(value)));
const pictureOf = (value: unknown): string => (Array.isArray(value) ? pictureOf(value[0]) : isRecord(value) ? text(value.url) : text(value));

/** ISO 26324 names begin with a directory indicator 10. and a registrant, then a slash. */
const DOI = /\b(10\.\d{4,9}\/[^\s"<>?#]+)/;
export const readDoi = (text: string): string => DOI.exec(text)?.[1]?.replace(/[.,;)\]]+$/, '') ?? '';

/** Dates as pages write them: `2026`, `2026-10`, `2026-10-02`, `2026/10/02`, date-times, and forms that Date reads. */
export function readDate(value: string): string | null {
  const given = value.trim();
  if (/^\d{4}(-(0[1-9]|1[0-2]))?$/.test(given)) return given;
  const slashed = given.replace(/^(\d{4})[/.](\d{1,2})(?:[/.](\d{1,2}))?$/, (_all, y: string, m: string, d: string | undefined) => `${y}-${m.padStart(2, '0')}${d ? `-${d.padStart(2, '0')}` : ''}`);
  if (/^\d{4}-\d{2}$/.test(slashed)) return slashed;
  const time = Date.parse(slashed);
  return Number.isNaN(time) ? null : new Date(time).toISOString();
}

function absolute(href: string | null | undefined, base: string): string | null {
  if (!href || !URL.canParse(href, base)) return null;
  const url = new URL(href, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null;
}
