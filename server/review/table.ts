import Papa from 'papaparse';
import { UUID_V7, cardPutSchema, type CardTableResult, type ClassId, type Me } from '@avrelle/core/wire';
import { ValidationError } from 'yup';
import { AppError } from '../errors';
import { csvOf } from '../export/csv';
import type { Writing } from '../writing';
import { changeCard, makeCard, tellOfCard } from './cards';
import { cardsAsked, storedCard, type StoredCard } from './queries';

const COLUMNS = ['id', 'question', 'answer', 'slips', 'passage', 'source', 'due', 'answered', 'forgotten'] as const;
/** Between the words of several slips. */
const BETWEEN = ' | ';
const MOST = 100_000;

/** The cards somebody made, as a table; not those that were given to a class of theirs. */
export function cardTable({ db }: Writing, me: Me): string {
  const { cards } = cardsAsked(db, me.id, { mine: true, offset: 0, limit: MOST });
  return csvOf(
    COLUMNS,
    cards.map(({ id, question, answer, slips, quote, title, memory }) => [
      id,
      question,
      answer,
      slips.map((slip) => slip.words).join(BETWEEN),
      quote,
      title,
      memory.due,
      memory.seen,
      memory.forgotten,
    ]),
  );
}

type Line = Readonly<Record<string, string | undefined>>;

/**
 * Reads a table of cards: a line with the id of a card of mine changes its question and answer, another one is a new
 * card. What cannot be read is left out and said. Throws `invalid` where the table has no column `question`.
 */
export function bringInCards(world: Writing, me: Me, table: string): CardTableResult {
  const { data, meta } = Papa.parse<Line>(table.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  if (!meta.fields?.includes('question'))
    throw new AppError(
      'invalid',
      { message: 'The table needs a first line that names its columns: question and answer.' },
      { field: 'table' },
    );
  if (data.length > MOST)
    throw new AppError(
      'invalid',
      { message: `A table may have ${MOST.toLocaleString('en')} cards.` },
      { field: 'table' },
    );
  return world.db.transaction(() => {
    const classes = new Map<ClassId, { id: ClassId; name: string }>();
    const result = { added: 0, changed: 0, refused: [] as { line: number; why: string }[] };
    data.forEach((line, n) => {
      try {
        const made = bringIn(world, me, line);
        if (made.as) result[made.as]++;
        for (const one of made.classes) classes.set(one.id, one);
      } catch (error) {
        // The first line names the columns.
        if (!(error instanceof AppError) && !(error instanceof ValidationError)) throw error;
        result.refused.push({ line: n + 2, why: error.message });
      }
    });
    if (result.added + result.changed > 0) tellOfCard(world, { ownerId: me.id, classes: [...classes.values()] });
    return result;
  });
}

/** What became of a line, and which classes have the card it changed. */
interface Made extends Pick<StoredCard, 'classes'> {
  readonly as?: 'added' | 'changed';
}

function bringIn(world: Writing, me: Me, line: Line): Made {
  const put = cardPutSchema.validateSync({ question: unguarded(line.question), answer: unguarded(line.answer) });
  const there = UUID_V7.test(line.id ?? '') ? storedCard(world.db, me.id, line.id!) : undefined;
  if (there?.ownerId !== me.id || there.deletedAt !== null) {
    makeCard(world, me, world.newId(), put);
    return { as: 'added', classes: [] };
  }
  const { question, answer } = put;
  if (there.question === question && there.answer === answer) return { classes: [] };
  changeCard(world, me, there, { question, answer, slips: undefined });
  return { as: 'changed', classes: there.classes };
}

/** A value that looked like a formula has an apostrophe before it in our tables. */
const unguarded = (value = ''): string => value.trim().replace(/^'(?=[=+\-@\t\r])/, '');
