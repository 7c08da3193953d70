import { parseQuery } from './parse';
import type { Query, Term } from './query';
import { writeQuery } from './write';

/**
 * A search after a tag was given another name: it asks for the new one, also for what stands beneath; all else stays as
 * it was typed. What cannot be read stays, and so does what asks for a tag that was taken away (`to` empty).
 */
export function renameTagIn(typed: string, from: string, to: string): string {
  const parsed = parseQuery(typed);
  if (!parsed.ok || !parsed.query || to === '') return typed;
  const terms = tagTerms(parsed.query).filter(({ value }) => value === from || value.startsWith(`${from}/`));
  return terms.reduceRight((text, term) => {
    const value = to + term.value.slice(from.length);
    const written = text[term.start] === '#' ? `#${value}` : writeQuery({ ...term, value });
    return text.slice(0, term.start) + written + text.slice(term.end);
  }, typed);
}

type NameTerm = Extract<Term, { type: 'name' }>;

/** In the order in which they stand. */
function tagTerms(query: Query): readonly NameTerm[] {
  switch (query.type) {
    case 'all':
    case 'any':
      return query.of.flatMap(tagTerms);
    case 'not':
      return tagTerms(query.of);
    case 'name':
      return query.field === 'tag' ? [query] : [];
    default:
      return [];
  }
}
