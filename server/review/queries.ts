import type { CardMemory, CardRating, MemoryState, Slip } from '@avrelle/core/review';
import type { AnnotationId, CardId, CardRow, PersonId, ReviewCard, ReviewWish, SourceId } from '@avrelle/core/wire';
import { practises } from '../access/visible-queries';
import type { Db } from '../db/database';

const PRACTISED = practises('c');
/** From whom one has it, where it is not one's own; where several classes have it, that whose teachers see most. */
const GIVEN = `CASE WHEN c.owner_id <> @me THEN (
  SELECT json_object('by', p.name, 'className', l.name, 'named', json(iif(k.named_from IS NULL, 'false', 'true')))
  FROM class_card k JOIN membership w ON w.class_id = k.class_id AND w.person_id = @me
    JOIN class l ON l.id = k.class_id JOIN person p ON p.id = c.owner_id
  WHERE k.card_id = c.id ORDER BY k.named_from IS NULL, l.name LIMIT 1) END`;
const CLASSES = `CASE WHEN c.owner_id = @me THEN (
  SELECT json_group_array(json_object('id', l.id, 'name', l.name))
  FROM class_card k JOIN class l ON l.id = k.class_id WHERE k.card_id = c.id AND l.deleted_at IS NULL) ELSE '[]' END`;
/** How far into its source `s` a card on the mark `a` stands, from 0 to 1. */
export const SHARE = 'coalesce(min(1.0, coalesce(a.start, 0) * 1.0 / max(1, s.length)), 0) AS share';
const CARD = `c.id, c.owner_id, c.annotation_id, c.source_id, c.question, c.answer, c.slips, c.covers, c.quote,
  coalesce(s.title, c.title) AS title, c.version, c.created_at, c.deleted_at,
  m.state, m.due, m.stability, m.difficulty, m.seen, m.forgotten, m.step, m.last, m.resting,
  s.id AS standing_source, coalesce(s.language, '') AS language, ${SHARE}, ${GIVEN} AS given, ${CLASSES} AS classes`;
const FROM = `FROM card_memory m JOIN card c ON c.id = m.card_id
  LEFT JOIN source s ON s.id = c.source_id AND s.deleted_at IS NULL LEFT JOIN annotation a ON a.id = c.annotation_id`;
export const SOME = `SELECT ${CARD} ${FROM}
  WHERE m.person_id = @me AND m.card_id IN (SELECT value FROM json_each(@ids)) AND (c.owner_id = @me OR ${PRACTISED})`;
const ONE = `SELECT ${CARD} ${FROM} WHERE m.person_id = @me AND m.card_id = @id`;
const OWNER = 'SELECT owner_id FROM card WHERE id = @id';
const IN_LIST = `m.person_id = @me AND ${PRACTISED} AND (@mine IS NULL OR c.owner_id = @me)
  AND (@source IS NULL OR c.source_id = @source) AND (@annotation IS NULL OR c.annotation_id = @annotation)
  AND (@resting IS NULL OR m.resting = @resting) AND (@forgotten IS NULL OR m.forgotten >= @forgotten)`;
export const LIST = `SELECT ${CARD} ${FROM} WHERE ${IN_LIST} ORDER BY c.created_at DESC, c.id DESC
  LIMIT @limit OFFSET @offset`;
export const LISTED = `SELECT count(*) AS n FROM card_memory m JOIN card c ON c.id = m.card_id WHERE ${IN_LIST}`;
const INSERT = `
  INSERT INTO card (id, owner_id, annotation_id, source_id, question, answer, slips, covers, quote, title, created_at)
  VALUES (@id, @me, @annotationId, @sourceId, @question, @answer, @slips, @covers, @quote,
    coalesce((SELECT title FROM source WHERE id = @sourceId), ''), @now)`;
const UPDATE = `
  UPDATE card SET question = @question, answer = @answer, slips = @slips, covers = @covers, quote = @quote,
    title = coalesce((SELECT title FROM source WHERE id = source_id), title), deleted_at = @deletedAt, version = version + 1
  WHERE id = @id`;
const EXPIRED = 'DELETE FROM card WHERE deleted_at < ?';

const PUT_MEMORY = `
  INSERT INTO card_memory (person_id, card_id, state, due, stability, difficulty, seen, forgotten, step, last)
  VALUES (@me, @id, @state, @due, @stability, @difficulty, @seen, @forgotten, @step, @last)
  ON CONFLICT DO UPDATE SET state = excluded.state, due = excluded.due, stability = excluded.stability,
    difficulty = excluded.difficulty, seen = excluded.seen, forgotten = excluded.forgotten, step = excluded.step,
    last = excluded.last`;
const REST = 'UPDATE card_memory SET resting = @resting WHERE card_id = @id AND person_id = @me';

/** A card with what somebody remembers of it, as it is stored. */
export interface StoredCard {
  readonly id: CardId;
  readonly ownerId: PersonId;
  readonly annotationId: AnnotationId | null;
  /** Null where it is deleted by now. */
  readonly sourceId: SourceId | null;
  /** Whether it ever was of a source. */
  readonly hadSource: boolean;
  readonly title: string;
  readonly language: string;
  readonly question: string;
  readonly answer: string;
  readonly slips: readonly Slip[];
  readonly covers: boolean;
  readonly quote: string;
  readonly version: number;
  readonly createdAt: string;
  readonly deletedAt: string | null;
  readonly resting: boolean;
  readonly memory: CardMemory;
  /** How far into its source it stands, from 0 to 1. */
  readonly share: number;
  readonly given: ReviewCard['given'];
  readonly classes: CardRow['classes'];
}

interface Row extends CardMemory {
  readonly id: CardId;
  readonly ownerId: PersonId;
  readonly annotationId: AnnotationId | null;
  readonly sourceId: SourceId | null;
  readonly standingSource: SourceId | null;
  readonly title: string;
  readonly language: string;
  readonly question: string;
  readonly answer: string;
  readonly slips: string;
  readonly covers: number;
  readonly quote: string;
  readonly version: number;
  readonly createdAt: string;
  readonly deletedAt: string | null;
  readonly resting: number;
  readonly share: number;
  readonly given: string | null;
  readonly classes: string;
}

function cardFrom({ standingSource, slips, covers, resting, given, classes, ...row }: Row): StoredCard {
  const { state, due, stability, difficulty, seen, forgotten, step, last, ...card } = row;
  return {
    ...card,
    sourceId: standingSource,
    hadSource: row.sourceId !== null,
    slips: JSON.parse(slips) as Slip[],
    covers: covers === 1,
    resting: resting === 1,
    given: given === null ? null : (JSON.parse(given) as StoredCard['given']),
    classes: JSON.parse(classes) as StoredCard['classes'],
    memory: { state, due, stability, difficulty, seen, forgotten, step, last },
  };
}

/** One that somebody has a memory of, deleted or not. */
export function storedCard(db: Db, me: PersonId, id: CardId): StoredCard | undefined {
  const row = db.get<Row>(ONE, { me, id });
  return row && cardFrom(row);
}
export const ownerOfCard = (db: Db, id: CardId): PersonId | undefined =>
  db.get<{ ownerId: PersonId }>(OWNER, { id })?.ownerId;
/** Those somebody practises or owns, in the order given. */
export function storedCards(db: Db, me: PersonId, ids: readonly CardId[]): StoredCard[] {
  const byId = new Map(db.all<Row>(SOME, { me, ids: JSON.stringify(ids) }).map((row) => [row.id, cardFrom(row)]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** What a card says in a list: its question, the words under its slips, or its passage. */
export const cardWords = ({ question, slips, quote }: Pick<StoredCard, 'question' | 'slips' | 'quote'>): string =>
  question || slips.map((slip) => slip.words).join(' … ') || quote;

export interface CardsAsked {
  readonly source?: SourceId | undefined;
  readonly annotation?: AnnotationId | undefined;
  readonly resting?: boolean | undefined;
  /** Only those of one's own. */
  readonly mine?: boolean | undefined;
  /** Only those that were forgotten so often, or more. */
  readonly forgotten?: number | undefined;
  readonly offset: number;
  readonly limit: number;
}
export function cardsAsked(
  db: Db,
  me: PersonId,
  { source, annotation, resting, mine, forgotten, offset, limit }: CardsAsked,
): { readonly cards: StoredCard[]; readonly total: number } {
  const asked = {
    me,
    source: source ?? null,
    annotation: annotation ?? null,
    resting: resting === undefined ? null : Number(resting),
    mine: mine ? 1 : null,
    forgotten: forgotten ?? null,
  };
  const cards = db.all<Row>(LIST, { ...asked, offset, limit }).map(cardFrom);
  return { cards, total: db.get<{ n: number }>(LISTED, asked)!.n };
}

export interface CardWords {
  readonly question: string;
  readonly answer: string;
  readonly slips: readonly Slip[];
  readonly covers: boolean;
  readonly quote: string;
}
const stored = ({ question, answer, quote, slips, covers }: CardWords) => ({
  question,
  answer,
  quote,
  slips: JSON.stringify(slips),
  covers: Number(covers),
});
export function insertCard(
  db: Db,
  card: CardWords & {
    readonly id: CardId;
    readonly me: PersonId;
    readonly annotationId: AnnotationId | null;
    readonly sourceId: SourceId | null;
  },
  now: string,
): void {
  const { id, me, annotationId, sourceId } = card;
  db.run(INSERT, { ...stored(card), id, me, annotationId, sourceId, now });
}
export const updateCard = (db: Db, id: CardId, card: CardWords & Pick<StoredCard, 'deletedAt'>): void =>
  void db.run(UPDATE, { ...stored(card), id, deletedAt: card.deletedAt });
export const removeExpiredCards = (db: Db, before: string): void => void db.run(EXPIRED, before);

export const setMemory = (db: Db, me: PersonId, id: CardId, memory: CardMemory): void =>
  void db.run(PUT_MEMORY, { me, id, ...memory });
export const setResting = (db: Db, me: PersonId, id: CardId, resting: boolean): number =>
  db.run(REST, { me, id, resting: Number(resting) });

/** Of what is practised: everything, or only what is of a source, a tag, a note or a class. */
export interface Chosen {
  readonly source?: SourceId | undefined;
  readonly tag?: string | undefined;
  readonly note?: string | undefined;
  readonly class?: string | undefined;
}
const CHOSEN = `
  (@source IS NULL OR c.source_id = @source)
  AND (@tag IS NULL
    OR EXISTS (SELECT 1 FROM annotation_tag t WHERE t.annotation_id = c.annotation_id AND t.tag = @tag)
    OR EXISTS (SELECT 1 FROM source_tag t WHERE t.person_id = @me AND t.source_id = c.source_id AND t.tag = @tag))
  AND (@note IS NULL OR EXISTS (
    SELECT 1 FROM study_excerpt e JOIN study_note n ON n.id = e.note_id
    WHERE e.note_id = @note AND e.annotation_id = c.annotation_id AND e.stands = 1 AND n.owner_id = @me))
  AND (@class IS NULL
    OR EXISTS (SELECT 1 FROM class_card k WHERE k.class_id = @class AND k.card_id = c.id)
    OR EXISTS (
    SELECT 1 FROM class_source k JOIN membership w ON w.class_id = k.class_id AND w.person_id = @me
    WHERE k.class_id = @class AND k.source_id = c.source_id))`;
/** What comes back before a time, and is not resting; each with where it stands in its source. */
export const DUE = `
  SELECT c.id, m.state, m.due, c.source_id, coalesce(s.title, c.title) AS title, coalesce(a.start, 0) AS start
  FROM card_memory m JOIN card c ON c.id = m.card_id LEFT JOIN annotation a ON a.id = c.annotation_id
    LEFT JOIN source s ON s.id = c.source_id AND s.deleted_at IS NULL
  WHERE m.person_id = @me AND m.resting = 0 AND m.due < @before AND ${PRACTISED} AND ${CHOSEN}
  ORDER BY m.due, c.created_at, c.id`;
const COUNTS = `
  SELECT count(*) AS total, coalesce(sum(m.resting), 0) AS resting, coalesce(sum(m.state = 'review'), 0) AS learnt
  FROM card_memory m JOIN card c ON c.id = m.card_id WHERE m.person_id = @me AND ${PRACTISED}`;
/** When cards come back, by themselves; only those of the next days. */
export const COMING = `
  SELECT m.due FROM card_memory m JOIN card c ON c.id = m.card_id
  WHERE m.person_id = @me AND m.resting = 0 AND m.due < @before AND ${PRACTISED}`;

export interface DueRow {
  readonly id: CardId;
  readonly state: MemoryState;
  readonly due: string;
  readonly sourceId: SourceId | null;
  readonly title: string;
  readonly start: number;
}
export const dueBefore = (db: Db, me: PersonId, before: string, chosen: Chosen): DueRow[] =>
  db.all<DueRow>(DUE, {
    me,
    before,
    source: chosen.source ?? null,
    tag: chosen.tag ?? null,
    note: chosen.note ?? null,
    class: chosen.class ?? null,
  });
export const cardCounts = (db: Db, me: PersonId) =>
  db.get<{ total: number; resting: number; learnt: number }>(COUNTS, { me })!;
export const comingBefore = (db: Db, me: PersonId, before: string): string[] =>
  db.all<{ due: string }>(COMING, { me, before }).map((row) => row.due);

const WISH = 'SELECT retention, new_per_day, answers_per_day FROM review_wish WHERE person_id = @me';
const PUT_WISH = `
  INSERT INTO review_wish (person_id, retention, new_per_day, answers_per_day)
  VALUES (@me, @retention, @newPerDay, @answersPerDay)
  ON CONFLICT DO UPDATE SET retention = excluded.retention, new_per_day = excluded.new_per_day,
    answers_per_day = excluded.answers_per_day`;
export const wishOf = (db: Db, me: PersonId): ReviewWish | undefined => db.get<ReviewWish>(WISH, { me });
export const setWish = (db: Db, me: PersonId, wish: ReviewWish): void => void db.run(PUT_WISH, { me, ...wish });

const INSERT_ANSWER = `
  INSERT INTO card_answer (id, person_id, card_id, at, rating, state, chance, before)
  VALUES (@id, @me, @cardId, @at, @rating, @state, @chance, @before)`;
const ANSWER = 'SELECT id, person_id, card_id, before FROM card_answer WHERE id = ?';
export const LAST_ANSWER = `
  SELECT id FROM card_answer WHERE card_id = @cardId AND person_id = @me ORDER BY at DESC, id DESC LIMIT 1`;
const FORGET_ANSWER = 'DELETE FROM card_answer WHERE id = ?';
export const ANSWERED_SINCE = `
  SELECT count(*) AS all_of_them, coalesce(sum(state = 'new'), 0) AS new, coalesce(sum(state = 'review'), 0) AS review
  FROM card_answer WHERE person_id = @me AND at >= @since`;
export const ANSWERS_SINCE = `
  SELECT at, rating, state, chance FROM card_answer WHERE person_id = @me AND at >= @since ORDER BY at`;
export const HARDEST = `
  SELECT c.id FROM card_memory m JOIN card c ON c.id = m.card_id
  WHERE m.person_id = @me AND m.forgotten > 0 AND ${PRACTISED}
  ORDER BY m.forgotten DESC, m.difficulty DESC LIMIT @most`;

export interface NewAnswer {
  readonly id: string;
  readonly me: PersonId;
  readonly cardId: CardId;
  readonly at: string;
  readonly rating: CardRating;
  readonly chance: number | null;
  readonly before: CardMemory;
}
export const insertAnswer = (db: Db, answer: NewAnswer): void =>
  void db.run(INSERT_ANSWER, {
    ...answer,
    state: answer.before.state,
    before: JSON.stringify(answer.before),
  });
export function answerWith(
  db: Db,
  id: string,
): { readonly personId: PersonId; readonly cardId: CardId; readonly before: CardMemory } | undefined {
  const row = db.get<{ personId: PersonId; cardId: CardId; before: string }>(ANSWER, id);
  return row && { ...row, before: JSON.parse(row.before) as CardMemory };
}
export const lastAnswer = (db: Db, me: PersonId, cardId: CardId): string | undefined =>
  db.get<{ id: string }>(LAST_ANSWER, { me, cardId })?.id;
export const forgetAnswer = (db: Db, id: string): void => void db.run(FORGET_ANSWER, id);
export const answeredSince = (db: Db, me: PersonId, since: string) =>
  db.get<{ allOfThem: number; new: number; review: number }>(ANSWERED_SINCE, { me, since })!;
export const answersSince = (db: Db, me: PersonId, since: string) =>
  db.all<{ at: string; rating: CardRating; state: MemoryState; chance: number | null }>(ANSWERS_SINCE, { me, since });
export const hardestCards = (db: Db, me: PersonId, most: number): CardId[] =>
  db.all<{ id: CardId }>(HARDEST, { me, most }).map((row) => row.id);
