import {
  isShowing,
  LIVE_CLOSED,
  type ClassRole,
  type Follower,
  type FollowingMessage,
  type Live,
  type LiveInk,
  type LiveMessage,
  type LiveTold,
  type PersonId,
  type ShowingMessage,
  type Stroke,
} from '@avrelle/core/wire';
import { changed, samePlace, withStroke } from '@avrelle/core/live';

/** One connection of somebody, as a room uses it. */
export interface Line {
  /** Bytes that wait to be sent. */
  readonly bufferedAmount: number;
  send(text: string): void;
  close(code: number): void;
  /** Asks for a sign of life; ends what gave none since the last time. */
  check(): void;
}

export interface Guest {
  readonly id: PersonId;
  readonly name: string;
  readonly role: ClassRole;
}

/** Who is there, with all their windows. */
interface Seat extends Guest {
  readonly lines: Set<Line>;
  readonly around: boolean;
  readonly at: number | null;
  readonly hand: boolean;
  readonly lostAt: string | null;
}

/** A line that is so many bytes behind is told nothing that passes, and everything once it has caught up. */
const FAR_BEHIND = 256 * 1024;
/** Who closes a window (RFC 6455, 7.4.1), or is sent away, is gone; any other close is a connection that was lost. */
const WENT: readonly number[] = [1000, 1001, ...Object.values(LIVE_CLOSED)];

type Passing = Exclude<LiveTold, { readonly type: 'state' | 'people' | 'refused' | 'beat' }>;
type Unnumbered = Passing extends infer One ? (One extends Passing ? Omit<One, 'n'> : never) : never;

/** What a room does outside of itself. */
export interface House {
  now(): string;
  /** What stays of what is shown has changed. */
  keep(live: Live): void;
  /** Somebody came, went, or does something else: teachers are to be told, soon. */
  peopleChanged(): void;
}

/**
 * The room of a class in which something is shown: who is there, what they see, and the numbers of what they are told.
 * What stays is kept outside; pointer and ink are here alone.
 */
export class Room {
  private readonly seats = new Map<PersonId, Seat>();
  private readonly behind = new WeakSet<Line>();
  private n = 0;
  private ink: readonly Stroke[] = [];
  private pointer: LiveInk | null = null;

  constructor(
    private shown: Live | null,
    private readonly house: House,
  ) {}

  get live(): Live | null {
    return this.shown;
  }
  get isEmpty(): boolean {
    return this.shown === null && this.seats.size === 0;
  }
  get hasShower(): boolean {
    return (this.seats.get(this.shown?.by.id ?? '')?.lines.size ?? 0) > 0;
  }
  get lines(): readonly Line[] {
    return [...this.seats.values()].flatMap((seat) => [...seat.lines]);
  }

  join(guest: Guest, line: Line): void {
    const before = this.seats.get(guest.id);
    const fresh = { around: false, at: null, hand: false };
    const seat: Seat = { ...fresh, ...before, ...guest, lines: before?.lines ?? new Set(), lostAt: null };
    seat.lines.add(line);
    this.seats.set(guest.id, seat);
    this.tellAll(line, seat, before !== undefined);
    this.house.peopleChanged();
  }

  leave({ id }: Pick<Guest, 'id'>, line: Line, code: number): void {
    const seat = this.seats.get(id);
    if (!seat?.lines.delete(line) || seat.lines.size > 0) return;
    if (WENT.includes(code)) this.seats.delete(id);
    else this.sit({ ...seat, lostAt: this.house.now() });
    this.house.peopleChanged();
  }

  /** What somebody says; what they may not say changes nothing. */
  hear({ id }: Pick<Guest, 'id'>, line: Line, message: LiveMessage): void {
    const seat = this.seats.get(id);
    if (!seat) return;
    if (!isShowing(message)) this.follow(seat, line, message as FollowingMessage);
    else if (this.shown && this.shown.by.id === id && seat.role !== 'student') this.show(message as ShowingMessage);
  }

  /** Something else is shown from now on, or nothing. */
  set(live: Live | null): void {
    const same = live && this.shown && samePlace(live.place, this.shown.place);
    this.shown = live;
    if (!same) this.clear();
    if (live === null) this.settle();
    this.tellLive();
    this.house.peopleChanged();
  }

  /** Nobody looks around where nothing is shown, and nobody is waited for. */
  private settle(): void {
    for (const seat of this.seats.values())
      if (seat.lines.size === 0) this.seats.delete(seat.id);
      else this.sit({ ...seat, around: false, at: null, hand: false });
  }

  /** Who is no member any more leaves with `code`; who is something else there by now is that. */
  recheck(roles: ReadonlyMap<PersonId, ClassRole>, code: number): void {
    for (const seat of this.seats.values()) {
      const role = roles.get(seat.id);
      if (role === undefined) {
        this.seats.delete(seat.id);
        for (const line of seat.lines) line.close(code);
      } else if (role !== seat.role) {
        this.sit({ ...seat, role });
        for (const line of seat.lines) this.tellAll(line, { ...seat, role }, true);
      }
    }
    this.house.peopleChanged();
  }

  tellPeople(): void {
    const people = this.people();
    const text = JSON.stringify({ type: 'people', people } satisfies LiveTold);
    for (const seat of this.seats.values()) if (seat.role !== 'student') for (const line of seat.lines) line.send(text);
  }

  private people(): Follower[] {
    return [...this.seats.values()]
      .filter(({ id }) => id !== this.shown?.by.id)
      .map(({ id, name, around, at, hand, lostAt }) => ({ id, name, around, at, hand, lostAt }))
      .sort((a, b) => a.name.localeCompare(b.name));
  }

  private sit(seat: Seat): void {
    this.seats.set(seat.id, seat);
  }

  private follow(seat: Seat, line: Line, message: FollowingMessage): void {
    if (message.type === 'whole') return this.tellAll(line, seat, true);
    this.sit(
      message.type === 'around'
        ? { ...seat, around: message.on, at: message.on ? message.at : null }
        : { ...seat, hand: message.up },
    );
    this.house.peopleChanged();
  }

  private show(message: ShowingMessage): void {
    switch (message.type) {
      case 'pointer':
        this.pointer = message.at;
        return this.pass({ type: 'pointer', at: message.at });
      case 'ink': {
        this.ink = withStroke(this.ink, message);
        return this.pass({ type: 'ink', id: message.id, ink: message.ink });
      }
      case 'wipe':
        this.ink = [];
        return this.pass({ type: 'wipe' });
      case 'recall':
        return this.recall(message.personId);
      case 'lower': {
        const seat = this.seats.get(message.personId);
        if (!seat) return;
        this.sit({ ...seat, hand: false });
        for (const line of seat.lines) this.tellAll(line, { ...seat, hand: false }, true);
        return this.house.peopleChanged();
      }
      default:
        return this.change(message);
    }
  }

  private change(message: ShowingMessage): void {
    const before = this.shown!;
    const live = changed(before, message);
    // What cannot be kept has not happened.
    if (message.type !== 'top') this.house.keep(live);
    this.shown = live;
    if (message.type === 'top') return this.pass({ type: 'top', at: message.at });
    if (!samePlace(before.place, live.place)) this.clear();
    this.tellLive();
  }

  private clear(): void {
    this.ink = [];
    this.pointer = null;
  }

  private recall(personId: PersonId | null): void {
    for (const seat of this.seats.values()) {
      if (!seat.around || (personId !== null && seat.id !== personId)) continue;
      const back = { ...seat, around: false, at: null };
      this.sit(back);
      for (const line of seat.lines) this.tellAll(line, back, true);
    }
    this.house.peopleChanged();
  }

  private liveFor({ role }: Pick<Guest, 'role'>): Live | null {
    return this.shown && role === 'student' ? { ...this.shown, walkthroughId: null } : this.shown;
  }

  private tellAll(line: Line, seat: Seat, isKnown: boolean): void {
    this.behind.delete(line);
    const { around, hand, role } = seat;
    const { n, ink, pointer } = this;
    const me = isKnown ? { around, hand } : null;
    const live = this.liveFor(seat);
    line.send(
      JSON.stringify({ type: 'state', n, live, ink, pointer, me, teaches: role !== 'student' } satisfies LiveTold),
    );
  }

  private tellLive(): void {
    this.n += 1;
    const { n } = this;
    const textFor = (role: ClassRole): string =>
      JSON.stringify({ type: 'live', n, live: this.liveFor({ role }) } satisfies LiveTold);
    const [student, teacher] = [textFor('student'), textFor('teacher')];
    for (const seat of this.seats.values()) this.send(seat, seat.role === 'student' ? student : teacher);
  }

  /** The same for all. */
  private pass(message: Unnumbered): void {
    this.n += 1;
    const text = JSON.stringify({ ...message, n: this.n });
    for (const seat of this.seats.values()) this.send(seat, text);
  }

  private send(seat: Seat, text: string): void {
    for (const line of seat.lines) {
      if (line.bufferedAmount > FAR_BEHIND) this.behind.add(line);
      else if (this.behind.has(line)) this.tellAll(line, seat, true);
      else line.send(text);
    }
  }
}
