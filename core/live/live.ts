import type { PersonId } from '../wire/ids';
import type { Live, LiveInk, LiveStart, LiveTold, ShowingMessage, Stroke } from '../wire/live';

/** So many strokes are on a page at once; the oldest gives way. */
export const MOST_STROKES = 200;

type Begun = Pick<Live, 'classId' | 'by' | 'startedAt'>;

/** What is shown from its beginning, or, where something was shown before, from there: who takes over changes nothing else. */
export function begun(of: Begun, { walkthroughId, place, step }: LiveStart, before: Live | null): Live {
  if (!before)
    return { ...of, ...{ walkthroughId, place, step }, top: null, blank: false, answers: false, questionId: null };
  const goesOn = { ...before, by: of.by, walkthroughId };
  return samePlace(before.place, place) ? { ...goesOn, step } : changed(goesOn, { type: 'place', place, step });
}

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
export function withStroke(all: readonly Stroke[], { id, ink }: Stroke): readonly Stroke[] {
  const at = all.findIndex((one) => one.id === id);
  return at < 0 ? [...all, { id, ink }].slice(-MOST_STROKES) : all.with(at, { id, ink });
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

/**
 * What who shows says again once the connection is back: what they did meanwhile, and what a server that started anew
 * does not know. Nothing where somebody else shows by now.
 */
export function toSayAgain(mine: Shown, theirs: Shown, me: PersonId): readonly ShowingMessage[] {
  const { live } = mine;
  if (!live || theirs.live?.by.id !== me || theirs.live.startedAt !== live.startedAt) return [];
  const moved = !samePlace(live.place, theirs.live.place) || live.step?.at !== theirs.live.step?.at;
  const place: ShowingMessage = { type: 'place', place: live.place, step: live.step };
  const there = moved ? changed(theirs.live, place) : theirs.live;
  const left = moved ? [] : theirs.ink;
  const isWiped = left.some(({ id }) => mine.ink.every((one) => one.id !== id));
  const known = new Map(isWiped ? [] : left.map(({ id, ink }) => [id, JSON.stringify(ink)]));
  const said: readonly (readonly [boolean, ShowingMessage])[] = [
    [moved, place],
    [live.top !== there.top, { type: 'top', at: live.top }],
    [live.blank !== there.blank, { type: 'blank', on: live.blank }],
    [live.answers !== there.answers, { type: 'answers', on: live.answers }],
    [live.questionId !== there.questionId, { type: 'ask', annotationId: live.questionId }],
    [isWiped, { type: 'wipe' }],
  ];
  return [
    ...said.flatMap(([differs, message]) => (differs ? [message] : [])),
    ...mine.ink
      .filter(({ id, ink }) => known.get(id) !== JSON.stringify(ink))
      .map(({ id, ink }): ShowingMessage => ({ type: 'ink', id, ink })),
  ];
}
