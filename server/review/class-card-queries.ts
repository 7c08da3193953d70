import type { CardRating, Slip } from '@avrelle/core/review';
import type { CardId, ClassCard, ClassCardHow, ClassCards, ClassId, NamedAnswers, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { SHARE, cardWords } from './queries';

const SHOWN = 'c.id, c.question, c.slips, c.quote, s.id AS source_id, coalesce(s.title, c.title) AS title';
const SOURCE = 'LEFT JOIN source s ON s.id = c.source_id AND s.deleted_at IS NULL';

export const GIVEN = `
  SELECT ${SHOWN}, c.annotation_id, p.name AS by, c.owner_id = @me AS mine, k.given_at, k.named_from,
    ${SHARE}
  FROM class_card k JOIN card c ON c.id = k.card_id JOIN person p ON p.id = c.owner_id ${SOURCE}
    LEFT JOIN annotation a ON a.id = c.annotation_id
  WHERE k.class_id = @classId AND c.deleted_at IS NULL
  ORDER BY s.id IS NULL, title, share, c.created_at, c.id`;
/** Cards of mine that stand in what the class reads, or have no passage, and were not given to it. */
export const GIVABLE = `
  SELECT ${SHOWN} FROM card c ${SOURCE} LEFT JOIN annotation a ON a.id = c.annotation_id
  WHERE c.owner_id = @me AND c.deleted_at IS NULL
    AND NOT EXISTS (SELECT 1 FROM class_card k WHERE k.class_id = @classId AND k.card_id = c.id)
    AND (c.source_id IS NULL
      OR EXISTS (SELECT 1 FROM class_source r WHERE r.class_id = @classId AND r.source_id = c.source_id))
  ORDER BY s.id IS NULL, title, a.start, c.created_at DESC, c.id LIMIT 500`;
const STUDENTS = `SELECT count(*) AS n FROM membership WHERE class_id = @classId AND role = 'student'`;
/** What the students of a class answered. */
const ANSWERED = `class_card k JOIN card_answer x ON x.card_id = k.card_id
  JOIN membership w ON w.class_id = k.class_id AND w.person_id = x.person_id AND w.role = 'student'`;
export const HOW = `
  SELECT k.card_id, count(DISTINCT x.person_id) AS people, count(*) AS answers, sum(x.rating = 'forgot') AS forgot,
    sum(x.state = 'new' AND x.rating IN ('knew', 'easily')) AS knew_at_once,
    count(DISTINCT iif(x.state = 'review', x.person_id, NULL)) AS people_later,
    sum(x.state = 'review') AS learnt, sum(x.state = 'review' AND x.rating <> 'forgot') AS remembered
  FROM ${ANSWERED} WHERE k.class_id = @classId GROUP BY k.card_id`;
/** Each student's answers since they are seen, with the last of them: SQLite takes it from the row of the greatest time. */
export const NAMED = `
  SELECT p.id, p.name, count(*) AS answers, sum(x.rating = 'forgot') AS forgot, x.rating AS last, max(x.at) AS at
  FROM ${ANSWERED} JOIN person p ON p.id = x.person_id
  WHERE k.class_id = @classId AND k.card_id = @cardId AND x.at >= k.named_from
  GROUP BY p.id ORDER BY forgot DESC, p.name`;

const GIVE = `
  INSERT INTO class_card (class_id, card_id, given_at, named_from) VALUES (@classId, @cardId, @now, @namedFrom)
  ON CONFLICT DO UPDATE SET named_from =
    CASE WHEN excluded.named_from IS NULL THEN NULL ELSE coalesce(named_from, excluded.named_from) END`;
const TAKE = 'DELETE FROM class_card WHERE class_id = @classId AND card_id = @cardId';
const COPY = `
  INSERT INTO class_card (class_id, card_id, given_at, named_from)
  SELECT @to, k.card_id, @now, iif(k.named_from IS NULL, NULL, @now)
  FROM class_card k JOIN card c ON c.id = k.card_id AND c.owner_id = @me WHERE k.class_id = @from`;

interface Worded {
  readonly question: string;
  /** JSON. */
  readonly slips: string;
  readonly quote: string;
}
/** With what it says in a list, in place of what that is made of. */
const worded = <Row extends Worded>({ slips, quote, ...row }: Row) => ({
  ...row,
  words: cardWords({ question: row.question, slips: JSON.parse(slips) as Slip[], quote }),
});

type ClassCardRow = Omit<ClassCard, 'how'>;
export const cardsGiven = (db: Db, me: PersonId, classId: ClassId): ClassCardRow[] =>
  db
    .all<Omit<ClassCardRow, 'mine' | 'words'> & Worded & { mine: number }>(GIVEN, { me, classId })
    .map((row) => ({ ...worded(row), mine: row.mine === 1 }));
export const cardsToGive = (db: Db, me: PersonId, classId: ClassId): ClassCards['mine'] =>
  db.all<Omit<ClassCards['mine'][number], 'words'> & Worded>(GIVABLE, { me, classId }).map(worded);
export const studentsIn = (db: Db, classId: ClassId): number => db.get<{ n: number }>(STUDENTS, { classId })!.n;
export const howCardsGo = (
  db: Db,
  classId: ClassId,
): ReadonlyMap<CardId, ClassCardHow & { readonly peopleLater: number }> =>
  new Map(
    db
      .all<ClassCardHow & { cardId: CardId; peopleLater: number }>(HOW, { classId })
      .map(({ cardId, ...how }) => [cardId, how] as const),
  );
export const namedAnswers = (db: Db, classId: ClassId, cardId: CardId): NamedAnswers[] =>
  db.all<NamedAnswers & { last: CardRating }>(NAMED, { classId, cardId });

/** Gives a card, or says anew whether it is seen who answers how; `namedFrom` is null where it is not. */
export const giveCard = (
  db: Db,
  given: { readonly classId: ClassId; readonly cardId: CardId; readonly namedFrom: string | null },
  now: string,
): void => void db.run(GIVE, { ...given, now });
export const takeCard = (db: Db, classId: ClassId, cardId: CardId): boolean => db.run(TAKE, { classId, cardId }) > 0;
/** A class that begins from another has the cards its teacher gave there; nobody has answered them yet. */
export const copyClassCards = (db: Db, me: PersonId, classes: { from: ClassId; to: ClassId }, now: string): void =>
  void db.run(COPY, { me, ...classes, now });
