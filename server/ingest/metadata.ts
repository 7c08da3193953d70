import { contentOf, fits, rootOf, select, selectOne, type PageElement, type PageTree } from './page-tree';
import { clean, DOI, jsonLd, microformats, words, type Linked } from './structured-data';

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
  const said = new Sayings(tree, address);
  const { linked, micro, root } = said;
  return {
    title: titleOf(said),
    author: authorOf(said),
    site: siteOf(said),
    description: said
      .pick(said.first('description', 'dc.description', 'og:description'), linked.description, micro.summary)
      .slice(0, 600),
    language: said
      .pick(
        root.lang,
        root['xml:lang'],
        said.first('citation_language', 'dc.language'),
        linked.inLanguage,
        said.first('og:locale')?.replace('_', '-'),
      )
      .slice(0, 35),
    publishedAt: readDate(dateOf(said)),
    canonical: absolute(said.attribute('link[rel~=canonical]', 'href') ?? said.first('og:url'), address),
    doi: readDoi(
      said.pick(
        said.first('citation_doi', 'dc.identifier', 'dc.identifier.doi'),
        linked.doi,
        said.attribute('a[href*="doi.org/10."]', 'href'),
      ),
    ),
    lead: absolute(
      said.first('og:image', 'og:image:url') ??
        linked.image ??
        said.attribute('.h-entry .u-photo', 'src') ??
        said.attribute('[itemprop=image]', 'src'),
      address,
    ),
  };
}

function titleOf(said: Sayings): string {
  const title = selectOne(said.tree, 'head > title') ?? selectOne(said.tree, 'title');
  const shown = title ? contentOf(title) : '';
  return plainTitle(
    said.pick(
      said.first('citation_title', 'dc.title'),
      said.linked.headline,
      said.first('og:title'),
      said.micro.name,
      said.text('[itemprop=headline]'),
      headingOf(said.tree, shown),
      shown,
    ),
  );
}

const authorOf = (said: Sayings): string =>
  said.pick(
    said.all('citation_author'),
    said.first('citation_authors')?.replace(/\s*;\s*/g, '; '),
    said.all('dc.creator'),
    said.linked.author,
    said.all('author'),
    said.all('article:author'),
    said.micro.author,
    said.listed('[itemprop=author]'),
    said.text('[rel~=author]'),
  );

const siteOf = (said: Sayings): string =>
  said.pick(
    said.first('citation_journal_title', 'citation_conference_title', 'og:site_name', 'dc.publisher'),
    said.linked.publisher,
    said.first('application-name'),
    new URL(said.address).hostname.replace(/^www\./, ''),
  );

const dateOf = (said: Sayings): string =>
  said.pick(
    said.first('citation_publication_date', 'citation_date', 'citation_online_date', 'dc.date', 'dc.date.issued'),
    said.linked.datePublished,
    said.first('article:published_time'),
    said.micro.published,
    said.attribute('[itemprop=datePublished]', 'content'),
    said.attribute('[itemprop=datePublished]', 'datetime'),
    said.first('date'),
    said.attribute('time[datetime]', 'datetime'),
  );

/** Elements asked for above. */
const TELLING =
  '[itemprop], [rel~=author], [rel~=canonical], time[datetime], a[href*="doi.org/10."], .h-entry .u-photo';

/** Everything a page says of itself, each looked for once: searching the whole page costs much. */
class Sayings {
  private readonly meta: ReadonlyMap<string, string[]>;
  private readonly telling: readonly PageElement[];
  readonly linked: Linked;
  readonly micro: ReturnType<typeof microformats>;
  /** Attributes of the root. */
  readonly root: Readonly<Record<string, string>>;

  constructor(
    readonly tree: PageTree,
    readonly address: string,
  ) {
    this.meta = metaTags(tree);
    this.telling = select(tree, TELLING);
    this.linked = jsonLd(tree);
    this.micro = microformats(tree);
    this.root = rootOf(tree).attribs;
  }

  /** The first that says anything. */
  pick(...values: readonly (string | undefined | null)[]): string {
    return values.map(clean).find(Boolean) ?? '';
  }
  /** Of `meta` tags by name: the first of the first that is there with words. */
  first(...names: readonly string[]): string | undefined {
    return names.map((name) => this.meta.get(name)?.[0]).find((value) => clean(value));
  }
  all(name: string): string {
    const values = (this.meta.get(name) ?? []).map(clean);
    return values.filter((value) => !/^https?:/i.test(value)).join('; ');
  }
  text(selector: string): string | undefined {
    return words(this.telling.find(fits(selector)));
  }
  attribute(selector: string, name: string): string | undefined {
    return this.telling.find(fits(selector))?.attribs[name];
  }
  listed(selector: string): string {
    const names = this.telling
      .filter(fits(selector))
      .map((el) => clean(words(selectOne(el, '[itemprop=name]')) ?? el.attribs.content ?? contentOf(el)));
    return [...new Set(names.filter((name) => name && name.length < 100))].join('; ');
  }
}

/** Without the sign by which a heading links to itself (common practice: ¶, #, §, a chain). */
const plainTitle = (title: string): string =>
  title.replace(/[\s\u00A0]*(?:[¶§#🔗⚓]|\uF0C1)\uFE0F?$/u, '').trim() || title;

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
    .map((child) => {
      if (!('attribs' in child)) return contentOf(child);
      return leftOut(child) ? '' : wordsWithout(child, leftOut);
    })
    .join('');
}

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

export const readDoi = (text: string): string => DOI.exec(text)?.[1]?.replace(/[.,;)\]]+$/, '') ?? '';

/** Dates as pages write them: `2026`, `2026-10`, `2026-10-02`, `2026/10/02`, date-times, and forms that Date reads. */
export function readDate(value: string): string | null {
  const given = value.trim();
  if (/^\d{4}(-(0[1-9]|1[0-2]))?$/.test(given)) return given;
  const slashed = given.replace(
    /^(\d{4})[/.](\d{1,2})(?:[/.](\d{1,2}))?$/,
    (_all, y: string, m: string, d: string | undefined) =>
      `${y}-${m.padStart(2, '0')}${d ? `-${d.padStart(2, '0')}` : ''}`,
  );
  if (/^\d{4}-\d{2}$/.test(slashed)) return slashed;
  const time = Date.parse(slashed);
  return Number.isNaN(time) ? null : new Date(time).toISOString();
}

function absolute(href: string | null | undefined, base: string): string | null {
  if (!href || !URL.canParse(href, base)) return null;
  const url = new URL(href, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null;
}
