import { FSRS, Rating, State, StrategyMode, generatorParameters, type CardInput, type Grade } from 'ts-fsrs';
import { MEMORY_STATES, type CardRating, type MemoryState } from './rating';

const GRADES: Readonly<Record<CardRating, Grade>> = {
  forgot: Rating.Again,
  partly: Rating.Hard,
  knew: Rating.Good,
  easily: Rating.Easy,
};

const STATES: Readonly<Record<MemoryState, State>> = {
  new: State.New,
  learning: State.Learning,
  review: State.Review,
  relearning: State.Relearning,
};

/** What is known of how well somebody remembers a card. Times are RFC 3339 in UTC. */
export interface CardMemory {
  readonly state: MemoryState;
  /** When it comes back. */
  readonly due: string;
  /** In days: after so long it is remembered with a chance of 0.9. 0 for a new one. */
  readonly stability: number;
  /** From 1, easy, to 10; 0 for a new one. */
  readonly difficulty: number;
  /** How often it was answered. */
  readonly seen: number;
  /** How often it was forgotten after it had been learnt. */
  readonly forgotten: number;
  /** Which of the short steps of learning comes next. */
  readonly step: number;
  /** When it was answered last; null for a new one. */
  readonly last: string | null;
}

export const newMemory = (now: string): CardMemory => ({
  state: 'new',
  due: now,
  stability: 0,
  difficulty: 0,
  seen: 0,
  forgotten: 0,
  step: 0,
  last: null,
});

/**
 * What a card's memory is after an answer, by the Free Spaced Repetition Scheduler with its default parameters and
 * steps. Days are spread a little, the same way each time for the same card (`seed`) and number of answers. A clock that
 * was set back since the last answer counts as no time gone by.
 */
export function answered(
  memory: CardMemory,
  rating: CardRating,
  { at, wish, seed }: { readonly at: string; readonly wish: number; readonly seed: string },
): CardMemory {
  const now = memory.last !== null && at < memory.last ? memory.last : at;
  const { card } = schedulerFor(wish, seed && `${seed} ${memory.seen}`).next(inputOf(memory), now, GRADES[rating]);
  return {
    state: MEMORY_STATES.find((state) => STATES[state] === card.state)!,
    due: card.due.toISOString(),
    stability: card.stability,
    difficulty: card.difficulty,
    seen: card.reps,
    forgotten: card.lapses,
    step: card.learning_steps,
    last: now,
  };
}

/** The chance, from 0 to 1, that a card is remembered at a time; null for a new one. */
export const chanceOf = (memory: CardMemory, at: string): number | null =>
  memory.state === 'new' ? null : plain.get_retrievability(inputOf(memory), at, false);

const plain = new FSRS(generatorParameters({ enable_fuzz: false }));
const schedulers = new Map<number, FSRS>();

/** `seed` decides how days are spread; '' spreads none. */
function schedulerFor(wish: number, seed: string): FSRS {
  if (seed === '') return new FSRS(generatorParameters({ request_retention: wish, enable_fuzz: false }));
  const scheduler =
    schedulers.get(wish) ?? new FSRS(generatorParameters({ request_retention: wish, enable_fuzz: true }));
  schedulers.set(wish, scheduler);
  return scheduler.useStrategy(StrategyMode.SEED, () => seed);
}

const inputOf = (memory: CardMemory): CardInput => ({
  due: memory.due,
  stability: memory.stability,
  difficulty: memory.difficulty,
  elapsed_days: 0,
  scheduled_days:
    memory.last === null ? 0 : Math.round((Date.parse(memory.due) - Date.parse(memory.last)) / 86_400_000),
  learning_steps: memory.step,
  reps: memory.seen,
  lapses: memory.forgotten,
  state: STATES[memory.state],
  last_review: memory.last,
});
