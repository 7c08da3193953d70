import { allOf } from '@avrelle/core/audience';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import { range } from '@avrelle/core/text';
import { insertPerson } from '../server/accounts/queries';
import { insertAnnotation } from '../server/annotations/queries';
import { addClassSource, insertClass, joinClass } from '../server/classes/queries';
import type { Context } from '../server/context';
import type { Ingested } from '../server/ingest/ingested';
import { replaceTags, shelve, sourceDetail } from '../server/sources/queries';
import { storeSource } from '../server/sources/store';
import { prose, word } from './make/prose';

export interface Size {
  readonly people: number;
  readonly classes: number;
  readonly sources: number;
  readonly annotations: number;
}
/** A school after two years. */
export const LARGE: Size = { people: 200, classes: 10, sources: 5_000, annotations: 100_000 };

const STATES = ['to_read', 'reading', 'finished', 'set_aside'] as const;
const KINDS = ['claim', 'evidence', 'question', 'term', 'doubt', 'keep'];
const TYPES = ['page', 'page', 'page', 'pdf', 'text'] as const;
const YEAR = 365 * 86_400_000;

/**
 * Fills a library with made-up sources and annotations: everybody is in one class, every source in its owner's, nine of
 * ten annotations are for the class. Gives the people's ids; number `n` is in class `n` modulo the number of classes.
 */
export function seedLarge(
  context: Context,
  { people, classes, sources, annotations }: Size,
  random: () => number,
  passwordHash = 'none',
): readonly string[] {
  const { db } = context;
  const now = Date.parse(context.now());
  const at = (): string => new Date(now - random() * 2 * YEAR).toISOString();
  const readers = Array.from({ length: people }, () => v7());
  const groups = Array.from({ length: classes }, () => v7());
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  db.transaction(() => {
    readers.forEach((id, n) =>
      insertPerson(
        db,
        { id, name: `Reader ${n + 1}`, email: `reader${n + 1}@college.saltmere.test`, role: 'member' },
        passwordHash,
        context.now(),
      ),
    );
    groups.forEach((id, n) => {
      insertClass(
        db,
        { id, code: `LARGE${n}`, personId: readers[n]! },
        { name: `Course ${n + 1}`, tint: 'tide' },
        context.now(),
      );
      for (let m = n; m < people; m += classes)
        joinClass(db, { classId: id, personId: readers[m]!, role: m === n ? 'teacher' : 'student' }, context.now());
    });
    for (let n = 0; n < sources; n++) {
      const owner = n % people;
      const group = groups[owner % classes]!;
      const text = prose(2_500 + random() * 2_500, random);
      const title = prose(30, random).split('.')[0]!;
      const id = v7();
      storeSource(
        { ...context, now: at },
        { id, ownerId: readers[owner]!, tags: [], ingested: made(title, text, TYPES[n % TYPES.length]!) },
      );
      const mine = { personId: readers[owner]!, sourceId: id };
      addClassSource(db, { classId: group, sourceId: id, personId: readers[owner]! }, context.now());
      replaceTags(db, mine, [word(random() / 2), word(random())], at());
      shelve(db, mine, { state: pick(STATES), spans: [[0, Math.floor(random() * text.length)]] }, at());
      const { versionId } = sourceDetail(db, readers[owner]!, id)!;
      const authors = readers.filter((_, m) => m % classes === owner % classes);
      const many = Math.floor(((n + 1) * annotations) / sources) - Math.floor((n * annotations) / sources);
      const of = { sourceId: id, versionId };
      for (const mark of marksOn(text, many, random)) {
        const by = { authorId: pick(authors), classes: random() < 0.9 ? [allOf(group)] : [] };
        insertAnnotation(db, { ...mark, ...of, ...by }, at());
      }
    }
  });
  return readers;
}

/** Marks anywhere on a text, some with a note or a tag. */
const marksOn = (text: string, many: number, random: () => number) => {
  const index = indexText(text);
  return Array.from({ length: many }, () => {
    const from = Math.floor(random() * (text.length - 120));
    return {
      id: v7(),
      kind: KINDS[Math.floor(random() * KINDS.length)]!,
      note: random() < 0.6 ? prose(60, random) : '',
      anchor: describe(index, range(from, from + 40 + Math.floor(random() * 60))),
      rootId: null,
      parentId: null,
      tags: random() < 0.3 ? [word(random())] : [],
    };
  });
};

function made(title: string, text: string, kind: 'page' | 'pdf' | 'text'): Ingested {
  const paragraphs = text.split('\n\n');
  let start = 0;
  const outline = paragraphs.map((p, n) => {
    const block = { start, end: start + p.length, role: 'paragraph' as const, path: `1/${n}` };
    start += p.length + 2;
    return block;
  });
  return {
    kind,
    snapshot: `<!doctype html><html><head><title>${title}</title></head><body>${paragraphs.map((p) => `<p>${p}</p>`).join('')}</body></html>`,
    assets: [],
    text,
    outline,
    inlines: [],
    minutes: Math.max(1, Math.round(text.length / 1_200)),
    address: null,
    canonical: null,
    meta: {
      title,
      author: `${word(0.3)} ${word(0.6)}`,
      site: 'Saltmere',
      description: '',
      language: 'en',
      publishedAt: null,
      canonical: null,
      doi: '',
      lead: null,
    },
    lead: null,
    missing: [],
    amount: 'whole',
    facts: {},
    file: null,
    fingerprint: '',
    width: null,
  };
}
