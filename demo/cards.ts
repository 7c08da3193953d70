import { v7 } from 'uuid';
import { RATINGS, type CardRating } from '@avrelle/core/review';
import { seeded } from '@avrelle/core/random';
import type { CardTableResult, Review } from '@avrelle/core/wire';
import { PRACTISED_FROM, seedClassCards, type CardWorld } from './class-cards';
import type { SourceKey } from './marks';

interface DemoCard {
  /** What was marked, by its source and words. */
  readonly of: readonly [source: SourceKey, quote: string];
  readonly question?: string;
  readonly answer?: string;
  /** Words of the passage, or around it, under a slip each. */
  readonly slips?: readonly string[];
}

const GAUGE = 'Between 1994 and 2024 the gauge at Cobb’s Hard recorded a rise of 117 mm';

/** What Ines wants to know by heart. */
const CARDS: readonly DemoCard[] = [
  {
    of: ['marsh', GAUGE],
    question: 'How fast did the sea rise at Cobb’s Hard, and how fast did the marsh?',
    answer: 'The sea by 3.9 mm a year (117 in all), the marsh by 3.2. The gap is 0.7.',
    slips: ['117 mm', '96', 'the width of a thumb'],
  },
  { of: ['marsh', GAUGE], slips: ['1994', '2024', 'Cobb’s Hard'] },
  {
    of: ['marsh', 'levées'],
    question: 'What is a levée in a marsh, and how much may it gain in a year?',
    slips: ['low banks of coarser silt', 'eight millimetres'],
  },
  { of: ['marsh', 'levées'], question: 'From where does the marsh die?', slips: ['from the middle'] },
  {
    of: ['marsh', 'it decides whether there will be a marsh at all'],
    question: 'Why does a gap as wide as a thumb matter?',
  },
  {
    of: ['marsh', 'nobody has shown what share of it would have reached the marsh'],
    question: 'What is the weak place of the case against the dredger?',
    slips: ['nobody has shown what share of it would have reached the marsh'],
  },
  { of: ['marsh', 'What saves it is room.'], question: 'What saves a marsh before a rising sea?', slips: ['room'] },
  {
    of: [
      'packet',
      'where eighty metres of saltings lie before a wall, the wall can be a third lower for the same safety',
    ],
    slips: ['eighty metres', 'a third lower'],
  },
  {
    of: ['walk', 'A hundred and sixty years without mud, that is what you are looking at.'],
    question: 'For how long have the fields behind the sluice had no mud?',
  },
  {
    of: ['pegs', 'An empty field is a fact. A guess is not.'],
    question: 'What does one write where a peg could not be read?',
    answer: 'Nothing: an empty field.',
  },
  { of: ['lavender', 'Glasswort'], question: 'Which plant of the marsh turns red in September?' },
];

/** Words of the field course, as a table from the teacher. */
const WORDS = `question,answer
accretion,the rising of a surface by what settles on it
saltings,land the sea covers at spring tides
spring tide,"the higher tide, about every two weeks, near new and full moon"
neap tide,"the lower tide, half way between two spring tides"
low water,the lowest the sea comes before it turns
pan,a bare hollow in a marsh where water stays
creek,a channel the tide runs in and out by
sluice,a gate in a wall that lets water out and keeps the sea back
peg,a brass rod driven to the gravel by which a surface is measured
gauge,an instrument that writes down how high the sea stands
levelling,finding the difference of heights between two points
benchmark,a fixed point whose height is known
mean,the sum of values divided by how many there are
least squares,the line from which values differ least when differences are squared
silt,grains finer than sand and coarser than clay
sediment,what water carried and let fall
managed retreat,moving a sea wall inland and giving the land before it to the marsh
squeeze,a marsh that loses at its front and cannot move back because of a wall
sea-couch,a stiff grass at the upper edge of the marsh
sea-lavender,a plant of the middle marsh that flowers in July
cord-grass,the first plant on open mud
glasswort,a small plant that stores salt and turns red
halophyte,a plant that lives with salt
zonation,plants standing in belts by how often the sea covers them
brackish,between fresh and salt
turbidity,how cloudy water is with what it carries
estuary,where a river and the tide meet
fetch,the length of open water over which wind makes waves
storm surge,water heaped up by wind above the height of the tide
`;

const DAYS = 13;

/** Gives a class its cards; makes those of Ines, and lets her practise them for two weeks, mostly with success. */
export async function seedCards(world: CardWorld, classId: string): Promise<void> {
  const { clock, send } = world;
  await seedClassCards(world, classId);
  clock.set(DAYS, 15);
  await send<CardTableResult>('ines', 'POST', '/api/cards/import', { table: WORDS });
  clock.set(DAYS, 15, 20);
  for (const card of CARDS) await make(world, card);
  const random = seeded(117);
  for (let ago = DAYS; ago >= PRACTISED_FROM; ago--) await practise(world, ago, random);
}

function make(
  { send, idOf, textOf }: CardWorld,
  { of, question = '', answer = '', slips = [] }: DemoCard,
): Promise<unknown> {
  const [source, quote] = of;
  const text = textOf(source);
  const start = text.indexOf(quote);
  return send('ines', 'PUT', `/api/cards/${v7()}`, {
    annotationId: idOf(source, quote),
    question,
    answer,
    slips: slips.map((words) => ({ at: text.indexOf(words, Math.max(0, start - 200)) - start, words })),
  });
}

async function practise({ clock, send }: CardWorld, ago: number, random: () => number): Promise<void> {
  for (let round = 0; round < 4; round++) {
    clock.set(ago, 17, 10 + round * 12);
    const { cards } = await send<Review>('ines', 'GET', `/api/review?day=${clock.now().slice(0, 10)}`);
    if (cards.length === 0) return;
    for (const { id, seen } of cards)
      await send('ines', 'PUT', `/api/cards/${id}/answers/${v7()}`, { rating: ratingFor(random()), seen });
  }
}

/** One in ten is forgotten, most are known. */
function ratingFor(chance: number): CardRating {
  const upTo = [0.1, 0.24, 0.88, 1];
  return RATINGS[upTo.findIndex((limit) => chance < limit)]!;
}
