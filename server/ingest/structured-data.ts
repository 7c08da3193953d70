import {
  closest,
  contentOf,
  fits,
  parentOf,
  select,
  selectOne,
  within,
  type PageElement,
  type PageTree,
} from './page-tree';

/** ISO 26324 names begin with a directory indicator 10. and a registrant, then a slash. */
export const DOI = /\b(10\.\d{4,9}\/[^\s"<>?#]+)/;
export const words = (element: PageElement | undefined): string | undefined => element && contentOf(element);
/** In one line. */
export const clean = (given: string | undefined | null): string => (given ?? '').replace(/\s+/g, ' ').trim();

const isEntry = fits('.h-entry');
const isQuoted = fits('.h-cite, .h-entry');

/** microformats2: what an h-entry says of itself (https://microformats.org/wiki/h-entry), not of what it quotes. */
export function microformats(tree: PageTree): Partial<Record<'name' | 'author' | 'published' | 'summary', string>> {
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

export type Linked = Partial<
  Record<'headline' | 'author' | 'publisher' | 'description' | 'inLanguage' | 'datePublished' | 'doi' | 'image', string>
>;

/** The first schema.org thing that has a headline or an author; broken JSON is passed over. */
export function jsonLd(tree: PageTree): Linked {
  for (const script of select(tree, 'script[type="application/ld+json"]')) {
    try {
      const thing = candidates(JSON.parse(contentOf(script))).find((t) => t.headline || t.author);
      if (thing) {
        return {
          headline: text(thing.headline ?? thing.name),
          author: names(thing.author),
          publisher: names(thing.publisher ?? thing.isPartOf),
          description: text(thing.description),
          inLanguage: text(thing.inLanguage),
          datePublished: text(thing.datePublished ?? thing.dateCreated),
          doi: identifiers(thing).find((id) => DOI.test(id)) ?? '',
          image: pictureOf(thing.image),
        };
      }
    } catch {
      /* a page's broken metadata is no reason to fail */
    }
  }
  return {};
}

function candidates(data: unknown): Record<string, unknown>[] {
  if (Array.isArray(data)) return data.flatMap(candidates);
  if (typeof data !== 'object' || data === null) return [];
  const record = data as Record<string, unknown>;
  return [record, ...candidates(record['@graph']), ...candidates(record.mainEntity)];
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const text = (value: unknown): string => (typeof value === 'string' ? value : '');
function names(value: unknown): string {
  if (Array.isArray(value)) return value.map(names).filter(Boolean).join('; ');
  if (!isRecord(value)) return text(value);
  return text(value.name) || [text(value.givenName), text(value.familyName)].filter(Boolean).join(' ');
}
const identifiers = (thing: Record<string, unknown>): string[] =>
  [thing.identifier, thing.sameAs, thing['@id']]
    .flat()
    .map((value) => (isRecord(value) ? text(value.value) : text(value)));
function pictureOf(value: unknown): string {
  if (Array.isArray(value)) return pictureOf(value[0]);
  return text(isRecord(value) ? value.url : value);
}
