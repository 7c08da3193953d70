import { boundsOf, type Query, type Term } from '@avrelle/core/query';
import { KIND_WORDS, type SourceKind } from '@avrelle/core/wire';
import type { Db } from '../db/database';

/** Everything in the database that a search can ask for, as plain rows. */
export interface World {
  readonly sources: readonly Source[];
  readonly marks: readonly Mark[];
}
interface Source {
  id: string;
  title: string;
  about: string;
  text: string;
  remark: string;
  author: string;
  site: string;
  language: string;
  kind: SourceKind;
  minutes: number;
  state: string;
  share: number;
  kept: string;
  published: string;
  mine: boolean;
  shared: boolean;
  tags: string[];
  places: string[];
  file: boolean;
}
interface Mark {
  id: string;
  seq: number;
  source: string;
  mine: boolean;
  author: string;
  quote: string;
  note: string;
  kind: string;
  kindName: string;
  tags: string[];
  classes: string[];
  created: string;
  reply: boolean;
  answers: number;
  drawn: boolean;
  unplaced: boolean;
}

/** Slow and plain: all that a person sees, read row by row. Who sees what is asked of the view that says it. */
export function worldOf(db: Db, me: string): World {
  const sources = sourcesOf(db, me);
  return { sources, marks: marksOf(db, me, sources) };
}

const tagsIn = (db: Db, sql: string, ...values: string[]): string[] =>
  db.all<{ tag: string }>(sql, ...values).map((t) => t.tag);

function sourcesOf(db: Db, me: string): Source[] {
  const sources = db.all<
    Omit<Source, 'mine' | 'shared' | 'tags' | 'places' | 'file'> & { owner: string; file: number }
  >(
    `
    SELECT s.id, s.title, t.about, t.stream AS text, s.remark, s.author, s.site, s.language, s.kind, s.minutes, coalesce(h.state, 'to_read') AS state, coalesce(h.read_share, 0) AS share, s.kept_at AS kept, coalesce(s.published_at, '') AS published, s.owner_id AS owner, v.file_hash IS NOT NULL AS file
    FROM source s JOIN version_text t ON t.version_id = s.current_version JOIN source_version v ON v.id = s.current_version LEFT JOIN shelf h ON h.source_id = s.id AND h.person_id = ? WHERE s.id IN (SELECT source_id FROM source_visible WHERE person_id = ?)`,
    me,
    me,
  );
  return sources.map((s) => ({
    ...s,
    mine: s.owner === me,
    remark: s.owner === me ? s.remark : '',
    file: s.file === 1,
    shared:
      db.all(
        'SELECT 1 FROM class_source c JOIN membership m ON m.class_id = c.class_id AND m.person_id = ? WHERE c.source_id = ?',
        me,
        s.id,
      ).length > 0,
    tags: [
      ...tagsIn(db, 'SELECT tag FROM source_tag WHERE person_id = ? AND source_id = ?', me, s.id),
      ...tagsIn(
        db,
        'SELECT t.tag FROM annotation a JOIN annotation_tag t ON t.annotation_id = a.id WHERE a.author_id = ? AND a.source_id = ? AND a.deleted_at IS NULL',
        me,
        s.id,
      ),
    ],
    places: tagsIn(
      db,
      `SELECT c.name AS tag FROM class c JOIN membership m ON m.class_id = c.id AND m.person_id = ? JOIN class_source x ON x.class_id = c.id WHERE x.source_id = ?`,
      me,
      s.id,
    ).concat(
      tagsIn(
        db,
        'SELECT c.name AS tag FROM collection c JOIN collection_item i ON i.collection_id = c.id WHERE i.source_id = ? AND c.id IN (SELECT collection_id FROM collection_visible WHERE person_id = ?)',
        s.id,
        me,
      ),
    ),
  }));
}

function marksOf(db: Db, me: string, sources: readonly Source[]): Mark[] {
  const marks = db
    .all<
      Omit<Mark, 'tags' | 'classes' | 'mine' | 'reply' | 'answers' | 'drawn' | 'unplaced'> & {
        authorId: string;
        root: string | null;
        anchor: string | null;
      }
    >(
      `
    SELECT a.id, a.seq, a.source_id AS source, a.author_id AS authorId, p.name AS author, a.quote, a.note, coalesce(r.kind, a.kind) AS kind, coalesce(k.name, '') AS kindName, a.created_at AS created, a.root_id AS root, a.anchor
    FROM annotation a JOIN person p ON p.id = a.author_id LEFT JOIN annotation r ON r.id = a.root_id LEFT JOIN kind k ON k.owner_id = coalesce(r.kind_owner, a.kind_owner) AND k.code = coalesce(r.kind, a.kind)
    WHERE a.id IN (SELECT annotation_id FROM annotation_visible WHERE person_id = ?) ORDER BY a.seq`,
      me,
    )
    .filter((a) => sources.some((s) => s.id === a.source));
  return marks.map((a) => ({
    ...a,
    mine: a.authorId === me,
    reply: a.root !== null,
    tags: tagsIn(db, 'SELECT tag FROM annotation_tag WHERE annotation_id = ?', a.id),
    drawn: a.anchor !== null && (JSON.parse(a.anchor) as { spot?: { type: string } }).spot?.type === 'drawn',
    classes: tagsIn(
      db,
      'SELECT c.name AS tag FROM annotation_class x JOIN class c ON c.id = x.class_id JOIN membership m ON m.class_id = c.id AND m.person_id = ? WHERE x.annotation_id = ?',
      me,
      a.id,
    ),
    answers: marks.filter((r) => r.root === a.id).length,
    unplaced:
      db.all(
        'SELECT 1 FROM placement l JOIN source s ON s.id = ? AND s.current_version = l.version_id WHERE l.annotation_id = ? AND l.start IS NULL AND l.hand_start IS NULL',
        a.source,
        a.id,
      ).length > 0,
  }));
}

/** Unicode, without case and marks (UAX #15, NFD). */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
const tokens = (text: string): string[] =>
  plain(text.replace(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]\p{M}*/gu, ' $& ')).match(
    /[\p{L}\p{N}\p{Co}]+/gu,
  ) ?? [];

/** Whether words stand one after the other in a text; the last one as a beginning, unless they are a phrase. */
function stands(text: string, words: string, phrase: boolean): boolean {
  const wanted = tokens(words);
  const there = tokens(text);
  return there.some((_, at) =>
    wanted.every((word, i) =>
      i === wanted.length - 1 && !phrase ? there[at + i]?.startsWith(word) : there[at + i] === word,
    ),
  );
}
const bears = (tags: readonly string[], tag: string): boolean => tags.some((t) => t === tag || t.startsWith(`${tag}/`));
const named = (name: string, part: string): boolean => plain(name).includes(plain(part));
const called = (names: readonly string[], name: string): boolean => names.some((n) => plain(n) === plain(name));
const within = (value: number, { least, most, open }: Extract<Term, { type: 'number' }>): boolean =>
  (least === undefined || (open === 'least' ? value > least : value >= least)) &&
  (most === undefined || (open === 'most' ? value < most : value <= most));

function onDay(day: string, { days, operator }: Extract<Term, { type: 'date' }>, today: string): boolean {
  if (day === '') return false;
  const { from, to } = boundsOf(days, today);
  return { '=': day >= from && day <= to, '<': day < from, '<=': day <= to, '>': day > to, '>=': day >= from }[
    operator
  ];
}

/** The query said of one thing, part by part. */
const says = (query: Query, of: (term: Term) => boolean): boolean => {
  switch (query.type) {
    case 'all':
      return query.of.every((part) => says(part, of));
    case 'any':
      return query.of.some((part) => says(part, of));
    case 'not':
      return !says(query.of, of);
    default:
      return of(query);
  }
};

export const slowSources = ({ sources, marks }: World, query: Query | undefined, today: string): string[] =>
  sources
    .filter(
      (s) =>
        !query ||
        says(query, (term) =>
          ofSource(
            s,
            marks.filter((m) => m.source === s.id),
            term,
            today,
          ),
        ),
    )
    .map((s) => s.id);

export const slowMarks = ({ sources, marks }: World, query: Query | undefined, today: string): number[] =>
  marks
    .filter((m) => {
      const source = sources.find((s) => s.id === m.source)!;
      return (
        !query ||
        says(query, (term) => ofMark(m, { source, marks: marks.filter((o) => o.source === m.source) }, term, today))
      );
    })
    .map((m) => m.seq);

function ofSource(s: Source, marks: readonly Mark[], term: Term, today: string): boolean {
  switch (term.type) {
    case 'words':
      switch (term.scope) {
        case 'title':
          return stands(s.title, term.words, term.phrase);
        case 'text':
          return stands(s.text, term.words, term.phrase);
        case 'note':
        case 'quote':
          return marks.some((m) => stands(m[term.scope as 'note' | 'quote'], term.words, term.phrase));
        case undefined:
          return [s.title, s.about, s.text, s.remark, ...marks.flatMap((m) => [m.quote, m.note])].some((text) =>
            stands(text, term.words, term.phrase),
          );
      }
    // eslint-disable-next-line no-fallthrough -- every scope returns
    case 'number':
      return within(amountOf(s, marks, term.field), term);
    case 'date':
      return onDay(
        term.field === 'saved' ? s.kept.slice(0, 10) : s.published && `${s.published}-01-01`.slice(0, 10),
        term,
        today,
      );
    case 'name':
      return bySource(s, marks, term.field, term.value);
  }
}

function amountOf(s: Source, marks: readonly Mark[], field: string): number {
  if (field === 'minutes') return s.minutes;
  return field === 'progress' ? s.share * 100 : marks.filter((m) => !m.reply).length;
}

function bySource(s: Source, marks: readonly Mark[], field: string, value: string): boolean {
  switch (field) {
    case 'tag':
      return bears(s.tags, value);
    case 'in':
      return called(s.places, value);
    case 'by':
      return named(s.author, value);
    case 'site':
      return named(s.site, value);
    case 'lang':
      return plain(s.language) === plain(value) || plain(s.language).startsWith(`${plain(value)}-`);
    case 'type':
      return called([s.kind, KIND_WORDS[s.kind]], value);
    case 'kind':
      return marks.some((m) => !m.reply && (m.kind === value.toLowerCase() || plain(m.kindName) === plain(value)));
    case 'is':
      return {
        'to-read': s.state === 'to_read',
        reading: s.state === 'reading',
        finished: s.state === 'finished',
        'set-aside': s.state === 'set_aside',
        mine: s.mine,
        shared: s.shared,
        unplaced: marks.some((m) => m.unplaced),
        read: s.state === 'finished' || s.share >= 0.97,
      }[value]!;
    default:
      return {
        note: marks.some((m) => m.note !== ''),
        tag: s.tags.length > 0,
        mark: marks.some((m) => !m.reply),
        answer: marks.some((m) => m.reply),
        drawing: marks.some((m) => m.drawn),
        file: s.file,
        remark: s.remark !== '',
      }[value]!;
  }
}

/** A source with all that is marked on it. */
interface Holding {
  readonly source: Source;
  readonly marks: readonly Mark[];
}

function ofMark(m: Mark, { source: s, marks }: Holding, term: Term, today: string): boolean {
  if (term.type === 'words' && term.scope !== 'title' && term.scope !== 'text')
    return (term.scope ? [m[term.scope]] : [m.quote, m.note]).some((text) => stands(text, term.words, term.phrase));
  if (term.type === 'date' && term.field === 'saved') return onDay(m.created.slice(0, 10), term, today);
  if (term.type !== 'name') return ofSource(s, marks, term, today);
  switch (term.field) {
    case 'tag':
      return bears(m.tags, term.value);
    case 'by':
      return named(m.author, term.value);
    case 'in':
      return called([...m.classes, ...s.places.filter((p) => !p.startsWith('Course'))], term.value);
    case 'kind':
      return m.kind === term.value.toLowerCase() || plain(m.kindName) === plain(term.value);
    case 'is':
      return (
        ({ mine: m.mine, shared: m.classes.length > 0, unplaced: m.unplaced } as Record<string, boolean>)[term.value] ??
        bySource(s, marks, 'is', term.value)
      );
    case 'has':
      return (
        (
          {
            note: m.note !== '',
            tag: m.tags.length > 0,
            mark: !m.reply,
            answer: m.answers > 0,
            drawing: m.drawn,
          } as Record<string, boolean>
        )[term.value] ?? bySource(s, marks, 'has', term.value)
      );
    default:
      return ofSource(s, marks, term, today);
  }
}
