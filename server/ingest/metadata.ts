export interface Metadata {
  readonly title: string;
  readonly author: string;
  readonly site: string;
  readonly description: string;
  /** BCP 47, as the page says it; '' when it does not. */
  readonly language: string;
  /** RFC 3339 date or date-time; null when the page says none that can be read. */
  readonly publishedAt: string | null;
  readonly canonical: string | null;
}

/**
 * Reads what a page says of itself: scholarly `citation_*` tags first, then Dublin Core, schema.org JSON-LD, Open Graph,
 * and plain HTML last.
 */
export function readMetadata(document: Document, address: string): Metadata {
  const meta = metaTags(document);
  const linked = jsonLd(document);
  const pick = (...values: (string | undefined | null)[]): string => values.map((v) => clean(v)).find(Boolean) ?? '';
  const all = (name: string): string => (meta.get(name) ?? []).map((v) => clean(v)).join('; ');
  const first = (name: string): string | undefined => meta.get(name)?.[0];
  return {
    title: pick(first('citation_title'), first('dc.title'), linked.headline, first('og:title'), document.querySelector('h1')?.textContent, document.title),
    author: pick(all('citation_author'), all('dc.creator'), linked.author, all('author'), all('article:author'), document.querySelector('[rel~=author], [itemprop=author]')?.textContent),
    site: pick(first('citation_journal_title'), first('og:site_name'), first('dc.publisher'), linked.publisher, new URL(address).hostname.replace(/^www\./, '')),
    description: pick(first('description'), first('dc.description'), first('og:description'), linked.description).slice(0, 600),
    language: pick(document.documentElement.getAttribute('lang'), first('citation_language'), first('dc.language'), linked.inLanguage).slice(0, 35),
    publishedAt: readDate(pick(first('citation_publication_date'), first('citation_date'), first('dc.date'), linked.datePublished, first('article:published_time'), document.querySelector('time[datetime]')?.getAttribute('datetime'))),
    canonical: absolute(document.querySelector('link[rel~=canonical]')?.getAttribute('href') ?? first('og:url'), address),
  };
}

const clean = (text: string | undefined | null): string => (text ?? '').replace(/\s+/g, ' ').trim();

function metaTags(document: Document): ReadonlyMap<string, string[]> {
  const found = new Map<string, string[]>();
  for (const tag of document.querySelectorAll('meta[content]')) {
    const name = (tag.getAttribute('name') ?? tag.getAttribute('property') ?? '').toLowerCase();
    const content = tag.getAttribute('content') ?? '';
    if (name && content.trim()) found.set(name, [...(found.get(name) ?? []), content]);
  }
  return found;
}

type Linked = Partial<Record<'headline' | 'author' | 'publisher' | 'description' | 'inLanguage' | 'datePublished', string>>;

/** The first schema.org thing that has a headline or an author; broken JSON is passed over. */
function jsonLd(document: Document): Linked {
  for (const script of document.querySelectorAll('script[type="application/ld+json"]')) {
    try {
      const data: unknown = JSON.parse(script.textContent ?? '');
      const thing = candidates(data).find((t) => t.headline || t.author);
      if (thing) {
        return {
          headline: text(thing.headline ?? thing.name), author: names(thing.author), publisher: names(thing.publisher),
          description: text(thing.description), inLanguage: text(thing.inLanguage), datePublished: text(thing.datePublished),
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
  return [record, ...candidates(record['@graph'])];
}

const text = (value: unknown): string => (typeof value === 'string' ? value : '');
const names = (value: unknown): string => (Array.isArray(value) ? value.map(names).filter(Boolean).join('; ') : typeof value === 'object' && value !== null ? text((value as { name?: unknown }).name) : text(value));

/** Dates as pages write them: `2026-10-02`, `2026/10/02`, date-times, and forms that Date reads. */
function readDate(value: string): string | null {
  const slashed = value.replace(/^(\d{4})\/(\d{1,2})\/(\d{1,2})$/, (_all, y: string, m: string, d: string) => `${y}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`);
  const time = Date.parse(slashed);
  return Number.isNaN(time) ? null : new Date(time).toISOString();
}

function absolute(href: string | null | undefined, base: string): string | null {
  if (!href || !URL.canParse(href, base)) return null;
  const url = new URL(href, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null;
}
