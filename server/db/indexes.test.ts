import { MARKED } from '../versions/queries';
import { expect, test } from '@jest/globals';
import { ARRIVALS } from '../feeds/queries';
import { LISTED, OF_BATCH, SINGLE } from '../jobs/queries';
import { MARKED_ON } from '../desk/queries';
import { DIGESTS_DUE, UNSENT } from '../notifications/digest-queries';
import {
  FOLLOWED_PEOPLE,
  FOLLOWED_SOURCES,
  FOLLOWED_THREADS,
  FOLLOWERS,
  SHARES_CLASS,
} from '../notifications/follow-queries';
import { MAIL_NOTICES, NOTICES } from '../notifications/notices-queries';
import { MUTED_BY } from '../notifications/settings-queries';
import { STUDENTS } from '../notifications/told-queries';
import { REPORTS } from '../discussion/report-queries';
import { SEE_ALL, STARS, threadsQuery } from '../discussion/queries';
import { ASKING_ME, MINE, REQUESTS } from '../joining/queries';
import { LEFT as LIVE_LEFT, LIVE_FOR } from '../live/queries';
import { PEOPLE_MEANT } from '../notes/queries';
import { OF_CLASS, STARRED, STEP_NOTES } from '../walkthroughs/queries';
import { IN_CLASS, LEFT, ON_SOURCE, ONE_QUESTION } from '../questions/queries';
import { DUE, HELD, STUDENTS_SEEING } from '../held/queries';
import { OF_SOURCE, ONE, SOME } from '../annotations/queries';
import { ANSWERS, BEHIND, MARKS_IN, MINE as STUDY_NOTES, MISSING, NEWEST_MARKS } from '../study/queries';
import {
  ANSWERED_SINCE,
  ANSWERS_SINCE,
  COMING,
  DUE as CARDS_DUE,
  HARDEST,
  LAST_ANSWER,
  LIST,
  LISTED as CARDS_LISTED,
  SOME as CARDS,
} from '../review/queries';
import { GIVABLE, GIVEN, HOW, NAMED } from '../review/class-card-queries';
import { FURTHER } from '../annotations/together-queries';
import { OTHERS, STANDING } from '../assignments/together-queries';
import { annotationsStatement, countStatement, sourcesStatement } from '../find/queries';
import { readQuery } from '../find/find';
import { COLLECTION_ONE, COLLECTIONS, DELETED, HOLDING, SEARCHES, STATE_COUNTS } from '../library/queries';
import { TAG_COUNTS, USED_TAGS } from '../library/tag-queries';
import { PAIRS, RELATED } from '../library/topic-queries';
import { MARKS, SOURCES, TAGS_OF } from '../sources/queries';
import { openDatabase, type Db } from './database';
import { migrate } from './migrate';

const opened = (): Db => {
  const db = openDatabase(':memory:');
  migrate(db);
  return db;
};

test.each(
  Object.entries({
    SOURCES,
    MARKS,
    TAGS_OF,
    TAG_COUNTS,
    STATE_COUNTS,
    OF_SOURCE,
    ONE,
    FURTHER,
    SOME,
    STUDY_NOTES,
    MISSING,
    BEHIND,
    MARKS_IN,
    NEWEST_MARKS,
    ANSWERS,
    ANSWERED_SINCE,
    ANSWERS_SINCE,
    COMING,
    CARDS_DUE,
    HARDEST,
    LAST_ANSWER,
    LIST,
    CARDS_LISTED,
    CARDS,
    GIVABLE,
    GIVEN,
    HOW,
    NAMED,
    READING_TOGETHER: OTHERS,
    STANDING,
    MARKED,
    NOTICES,
    MAIL_NOTICES,
    FOLLOWERS,
    FOLLOWED_SOURCES,
    FOLLOWED_THREADS,
    FOLLOWED_PEOPLE,
    SHARES_CLASS,
    MUTED_BY,
    DIGESTS_DUE,
    UNSENT,
    STUDENTS,
    ASKING_ME,
    MINE,
    REQUESTS,
    LISTED,
    SINGLE,
    OF_BATCH,
    ARRIVALS,
    COLLECTIONS,
    COLLECTION_ONE,
    SEARCHES,
    DELETED,
    HOLDING,
    RELATED,
    PAIRS,
    USED_TAGS,
    MARKED_ON,
    HELD,
    QUESTIONS_ON: ON_SOURCE,
    QUESTIONS_IN: IN_CLASS,
    ONE_QUESTION,
    QUESTIONS_LEFT: LEFT,
    DUE,
    STUDENTS_SEEING,
    THREADS: threadsQuery('answered', 'unread'),
    SEE_ALL,
    STARS,
    STEP_NOTES,
    STARRED,
    WALKTHROUGHS: OF_CLASS,
    PEOPLE_MEANT,
    LIVE_FOR,
    LIVE_LEFT,
    REPORTS,
  }),
)('%s reads no table from end to end', (_name, sql) => readsByIndex(opened(), sql));

test.each([
  '',
  'mud',
  '"salt pan" OR mud',
  'title:mud -text:pan',
  'tag:essay',
  'in:course',
  'by:rell',
  'kind:claim',
  'site:review lang:en type:pdf',
  'is:reading is:mine is:shared -is:unplaced is:read',
  'has:note OR has:answer OR has:drawing OR has:tag OR has:file OR has:remark OR has:mark',
  'minutes<10 progress>5 marks>2',
  'saved:today published:2025',
  'due:next 7 days',
])('the search “%s” reads no table from end to end', (q) => {
  const db = opened();
  const asker = { me: 'p', classes: ['c'], taught: ['c'], groups: ['d'], today: '2026-11-25', ahead: 60 };
  const query = readQuery(q);
  const page = { offset: 0, limit: 30 };
  for (const { sql } of [
    ...(['best', 'touched', 'title', 'marks'] as const).map((sort) =>
      sourcesStatement(db, query, asker, { ...page, sort }),
    ),
    countStatement(query, asker),
    ...(['best', 'newest', 'place'] as const).map((sort) => annotationsStatement(db, query, asker, sort)),
  ])
    readsByIndex(db, sql);
});

test('what a row refers to is found by an index, also when that is deleted', () => {
  const db = opened();
  const tables = db
    .all<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%'")
    .map((t) => t.name);
  const columnsOf = (index: string): string[] =>
    db.all<{ name: string }>(`SELECT name FROM pragma_index_info('${index}') ORDER BY seqno`).map((c) => c.name);
  const unindexed = tables.flatMap((table) => {
    const indexes = db
      .all<{ name: string }>(`SELECT name FROM pragma_index_list('${table}')`)
      .map((i) => columnsOf(i.name));
    return db
      .all<{ column: string; seq: number }>(`SELECT "from" AS "column", seq FROM pragma_foreign_key_list('${table}')`)
      .filter((key) => key.seq === 0 && !indexes.some((columns) => columns[0] === key.column))
      .map((key) => `${table}.${key.column}`);
  });
  expect(unindexed).toEqual([]);
});

/** As SQLite says it would go about it: what was made for the statement itself may be gone through, nothing else. */
function readsByIndex(db: Db, sql: string): void {
  const names = [...new Set([...sql.matchAll(/@(\w+)/g)].map((m) => m[1]!))];
  const unnamed = [...sql.matchAll(/\?/g)].map(() => null);
  const plan = db.raw
    .prepare(`EXPLAIN QUERY PLAN ${sql}`)
    .all(...unnamed, Object.fromEntries(names.map((n) => [n, null]))) as { detail: string }[];
  const details = plan.map((p) => p.detail);
  const derived = new Set(details.flatMap((d) => /^(?:MATERIALIZE|CO-ROUTINE) (\S+)/.exec(d)?.[1] ?? []));
  const scanned = details.flatMap((d) => /^SCAN (\S+)(?=$| USING)/.exec(d)?.[1] ?? []);
  expect(details.length).toBeGreaterThan(0);
  // An index of words is looked through by its words, and a list that came with the question from end to end.
  const asked = new Set(['source_words', 'annotation_words', 'w', 'j', 'json_each', 'best']);
  expect(
    scanned.filter(
      (name) =>
        !derived.has(name) &&
        !asked.has(name) &&
        !name.startsWith('(') &&
        !/^t\d+$/.test(name) &&
        !(name === 'v' && derived.has('source_visible')),
    ),
  ).toEqual([]);
}
