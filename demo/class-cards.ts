import { v7 } from 'uuid';
import { seeded } from '@avrelle/core/random';
import type { Review } from '@avrelle/core/wire';
import type { DemoClock } from './clock';
import type { SourceKey } from './marks';
import { STUDENTS } from './people';

export interface CardWorld {
  readonly clock: DemoClock;
  send<T>(by: string, method: 'GET' | 'PUT' | 'POST', url: string, payload?: object): Promise<T>;
  /** The annotation on some words. */
  idOf(source: SourceKey, quote: string): string;
  textOf(source: SourceKey): string;
}

interface ClassCard {
  readonly of: readonly [source: SourceKey, quote: string];
  readonly question: string;
  readonly answer: string;
  /** How often it is forgotten, from 0 to 1. */
  readonly hardness: number;
}

/** What the teacher wants the whole field course to know. */
const CARDS: readonly ClassCard[] = [
  {
    of: ['marsh', 'Between 1994 and 2024 the gauge at Cobb’s Hard recorded a rise of 117 mm'],
    question: 'By how much did the sea rise at Cobb’s Hard in thirty years?',
    answer: '117 mm, 3.9 a year.',
    hardness: 0.15,
  },
  {
    of: ['marsh', 'levées'],
    question: 'Why do the banks of a creek rise faster than the marsh behind them?',
    answer: 'The coarser silt falls first, where the water leaves the creek and slows down.',
    hardness: 0.55,
  },
  {
    of: ['marsh', 'it decides whether there will be a marsh at all'],
    question: 'A gap of less than a millimetre a year: why does it matter?',
    answer: 'It never stops: in the end the plants stand too low to live.',
    hardness: 0.08,
  },
  {
    of: ['marsh', 'the surface gains almost nothing'],
    question: 'Where in a marsh does the surface gain least?',
    answer: 'In the middle, far from every creek.',
    hardness: 0.4,
  },
  {
    of: ['pegs', 'A series for these pegs that runs across 2013 is two series, and must be drawn as two lines.'],
    question: 'How is a series drawn that runs across 2013?',
    answer: 'As two lines.',
    hardness: 0.2,
  },
];

const GIVEN = 8;
/** The last days nobody had time. */
export const PRACTISED_FROM = 4;

/** Gives a class some cards of its teacher, and lets most of its students practise them for a week. */
export async function seedClassCards({ clock, send, idOf }: CardWorld, classId: string): Promise<void> {
  clock.set(GIVEN, 9);
  const hardness = new Map<string, number>();
  for (const { of, question, answer, hardness: hard } of CARDS) {
    const id = v7();
    hardness.set(id, hard);
    await send('aldous', 'PUT', `/api/cards/${id}`, { annotationId: idOf(...of), question, answer });
  }
  await send('aldous', 'PUT', `/api/classes/${classId}/cards`, { cardIds: [...hardness.keys()], named: false });
  const random = seeded(96);
  const students = STUDENTS.filter(({ key, classes }) => classes.includes('B') && key !== 'ines').slice(0, 7);
  for (let ago = GIVEN; ago >= PRACTISED_FROM; ago--)
    for (const { key } of students) {
      clock.set(ago, 18);
      const { cards } = await send<Review>(key, 'GET', `/api/review?day=${clock.now().slice(0, 10)}`);
      for (const { id, seen } of cards) {
        const rating = random() < hardness.get(id)! ? 'forgot' : 'knew';
        await send(key, 'PUT', `/api/cards/${id}/answers/${v7()}`, { rating, seen });
      }
    }
}
