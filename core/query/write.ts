import { writeDays } from './days';
import type { Query, Term } from './query';

/** A query as it is typed. Read again, it is the same but for where its parts stand. */
export function writeQuery(query: Query): string {
  switch (query.type) {
    case 'any':
      return query.of.map((part) => (part.type === 'any' ? grouped(part) : writeQuery(part))).join(' OR ');
    case 'all':
      return query.of
        .map((part) => (part.type === 'any' || part.type === 'all' ? grouped(part) : writeQuery(part)))
        .join(' ');
    case 'not':
      return `-${query.of.type === 'any' || query.of.type === 'all' || query.of.type === 'not' ? grouped(query.of) : writeQuery(query.of)}`;
    default:
      return writeTerm(query);
  }
}

const grouped = (query: Query): string => `(${writeQuery(query)})`;

function writeTerm(term: Term): string {
  switch (term.type) {
    case 'words': {
      const { scope, phrase, words } = term;
      const plain = !phrase && isPlain(words, scope !== undefined);
      return `${scope ? `${scope}:` : ''}${plain ? words : `"${words}"`}`;
    }
    case 'name':
      return `${term.field}:${/[\s()"]/.test(term.value) ? `"${term.value}"` : term.value}`;
    case 'date':
      return `${term.field}${term.operator === '=' ? ':' : term.operator}${writeDays(term.days)}`;
    case 'number':
      return `${term.field}${writeNumbers(term)}`;
  }
}

function writeNumbers({ least, most, open }: Extract<Term, { type: 'number' }>): string {
  if (least === undefined) return `<${open === 'most' ? '' : '='}${most}`;
  if (most === undefined) return `>${open === 'least' ? '' : '='}${least}`;
  return least === most ? `:${least}` : `:${least}..${most}`;
}

/** Whether words would be read as words and nothing else. */
function isPlain(words: string, valued: boolean): boolean {
  if (/[\s()"]/.test(words) || words === '') return false;
  if (valued) return true;
  const field = /^([a-z]+)(?::(?!\/\/)|[<>=])/i.exec(words);
  return !/^(OR|AND|NOT)$/.test(words) && !/^-[^\s-]/.test(words) && !/^#[\p{L}\p{M}\p{N}_/-]+$/u.test(words) && !field;
}
