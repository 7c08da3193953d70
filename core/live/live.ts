import type { Live, LiveInk, LiveStart, LiveTold, ShowingMessage, Stroke } from '../wire/live';

/** So many strokes are on a page at once; the oldest gives way. */
export const MOST_STROKES = 200;

type Begun = Pick<Live, 'classId' | 'by' | 'startedAt'>;

export const begun = (of: Begun, { walkthroughId, place, step }: LiveStart): Live => ({
  ...of,
  walkthroughId,
  place,
  step,
  top: null,
  blank: false,
  answers: false,
  questionId: null,
});

/** What is shown after what who shows said. The same value where that is nothing that stays. */
export function changed(live: Live, message: ShowingMessage): Live {
  switch (message.type) {
    case 'place':
      return { ...live, ...{ place: message.place, step: message.step }, top: null, answers: false, questionId: null };
    case 'top':
      return { ...live, top: message.at };
    case 'blank':
      return { ...live, blank: message.on };
    case 'answers':
      return { ...live, answers: message.on };
    case 'ask':
      return { ...live, questionId: message.annotationId };
    default:
      return live;
  }
}

export const samePlace = (a: Live['place'], b: Live['place']): boolean =>
  a.sourceId === b.sourceId &&
  a.annotationId === b.annotationId &&
  a.range?.start === b.range?.start &&
  a.range?.end === b.range?.end;

/** A stroke under the same id takes the place of the one before. */
export function withStroke(ink: readonly Stroke[], stroke: Stroke): readonly Stroke[] {
  const at = ink.findIndex(({ id }) => id === stroke.id);
  return at < 0 ? [...ink, stroke].slice(-MOST_STROKES) : ink.with(at, stroke);
}

/** What one screen knows of what is shown. */
export interface Shown {
  /** Of the newest message it heard. */
  readonly n: number;
  readonly live: Live | null;
  readonly ink: readonly Stroke[];
  readonly pointer: LiveInk | null;
}

export const NOTHING_SHOWN: Shown = { n: -1, live: null, ink: [], pointer: null };

export type Numbered = Extract<LiveTold, { readonly n: number }>;
type Next = Exclude<Numbered, { readonly type: 'state' }>;

/** What is known after a message; undefined where one before it was missed, and everything is to be asked for. */
export function heard(shown: Shown, told: Numbered): Shown | undefined {
  if (told.type === 'state') return { n: told.n, live: told.live, ink: told.ink, pointer: told.pointer };
  if (told.n <= shown.n) return shown;
  return told.n === shown.n + 1 ? { ...after(shown, told), n: told.n } : undefined;
}

function after(shown: Shown, told: Next): Shown {
  switch (told.type) {
    case 'live': {
      const same = shown.live && told.live && samePlace(shown.live.place, told.live.place);
      return { ...shown, live: told.live, ...(same ? {} : { ink: [], pointer: null }) };
    }
    case 'top':
      return { ...shown, live: shown.live && { ...shown.live, top: told.at } };
    case 'pointer':
      return { ...shown, pointer: told.at };
    case 'ink':
      return { ...shown, ink: withStroke(shown.ink, told) };
    case 'wipe':
      return { ...shown, ink: [] };
  }
}
