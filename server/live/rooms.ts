import {
  BEAT_EVERY,
  LIVE_CLOSED,
  type ClassId,
  type Live,
  type LiveStart,
  type LiveTold,
  type Me,
} from '@avrelle/core/wire';
import { begun } from '@avrelle/core/live';
import { archivedClass, membershipsOf } from '../classes/queries';
import { mustNotBeArchived } from '../classes/archived';
import type { Clock } from '../clock';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import type { EventLog } from '../events/event-log';
import { deleteLive, heardOfShower, leftSince, liveIn, putLive } from './queries';
import { Room, type Guest, type Line } from './room';

/** Teachers are told of those who follow so often, in milliseconds. */
const PEOPLE_EVERY = 200;
const LOOK_EVERY = 60_000;
/** What was left without an end is ended after so long. */
const LEFT_FOR = 30 * 60_000;
/** RFC 6455, 7.4.1: the server starts anew. */
const RESTART = 1012;

/** The rooms of all classes in which something is shown, or will be. */
export class Rooms {
  private readonly rooms = new Map<ClassId, Room>();
  private readonly waiting = new Map<ClassId, NodeJS.Timeout>();
  private readonly stops: readonly (() => void)[];

  constructor(
    private readonly db: Db,
    private readonly now: Clock,
    private readonly events: EventLog,
  ) {
    const beat = setInterval(() => this.beat(), BEAT_EVERY).unref();
    const look = setInterval(() => logged(() => this.endLeft()), LOOK_EVERY).unref();
    this.stops = [
      () => clearInterval(beat),
      () => clearInterval(look),
      events.subscribe({
        hear: (rows) => {
          const changed = rows.flatMap(({ type, classId }) => (type === 'classes' && classId ? [classId] : []));
          for (const classId of new Set(changed)) logged(() => this.recheck(classId));
        },
        restart: () => this.empty(),
      }),
    ];
  }

  /** Begins to show something to a class. Throws `live_already` where somebody else does, unless one takes over. */
  start(classId: ClassId, me: Me, start: LiveStart): void {
    const { db, now, events } = this;
    const live = db.transaction(() => {
      mustNotBeArchived(db, classId);
      const before = liveIn(db, classId);
      if (before && before.by.id !== me.id && !start.takeOver)
        throw new AppError('live_already', { name: before.by.name });
      const startedAt = before?.startedAt ?? now();
      const by = { id: me.id, name: me.name };
      const begins = begun({ classId, by, startedAt }, start, this.rooms.get(classId)?.live ?? before);
      putLive(db, begins, now());
      events.append({ type: 'live', classId });
      return begins;
    });
    this.rooms.get(classId)?.set(live);
  }

  /** Nothing where nothing is shown. */
  end(classId: ClassId): void {
    this.db.transaction(() => {
      if (deleteLive(this.db, classId)) this.events.append({ type: 'live', classId });
    });
    const room = this.rooms.get(classId);
    if (room?.live) room.set(null);
    this.tidy(classId);
  }

  /** Gives how to leave. */
  join(classId: ClassId, guest: Guest, line: Line): { room: Room; leave(code: number): void } {
    const room = this.rooms.get(classId) ?? this.open(classId);
    room.join(guest, line);
    this.heardOf(classId, room, guest);
    return {
      room,
      leave: (code) => {
        room.leave(guest, line, code);
        logged(() => this.heardOf(classId, room, guest));
        this.tidy(classId);
      },
    };
  }

  /** Ends what nobody shows any more. Public for whoever cannot wait for the next look. */
  endLeft(): void {
    if (!this.db.raw.open) return;
    const before = new Date(Date.parse(this.now()) - LEFT_FOR).toISOString();
    for (const classId of leftSince(this.db, before)) if (!this.rooms.get(classId)?.hasShower) this.end(classId);
  }

  close(): void {
    for (const stop of this.stops) stop();
    this.empty();
  }

  private open(classId: ClassId): Room {
    const room = new Room(liveIn(this.db, classId), {
      now: this.now,
      keep: (live: Live) => putLive(this.db, live, this.now()),
      peopleChanged: () => this.tellPeople(classId),
    });
    this.rooms.set(classId, room);
    return room;
  }

  private heardOf(classId: ClassId, room: Room, { id }: Guest): void {
    if (this.db.raw.open && room.live?.by.id === id) heardOfShower(this.db, classId, this.now());
  }

  private tellPeople(classId: ClassId): void {
    if (this.waiting.has(classId)) return;
    const told = setTimeout(() => {
      this.waiting.delete(classId);
      this.rooms.get(classId)?.tellPeople();
    }, PEOPLE_EVERY).unref();
    this.waiting.set(classId, told);
  }

  /** After a change of who is in a class, or of the class itself. */
  private recheck(classId: ClassId): void {
    const room = this.rooms.get(classId);
    const live = room ? room.live : liveIn(this.db, classId);
    if (!room && !live) return;
    const roles = new Map(membershipsOf(this.db, [classId]).map(({ personId, role }) => [personId, role]));
    // Whoever left is sent away first: nothing that could fail comes before that.
    room?.recheck(roles, LIVE_CLOSED.notMember);
    const mayShow = live && (roles.get(live.by.id) ?? 'student') !== 'student';
    if (live && (!mayShow || archivedClass(this.db, classId) !== undefined)) this.end(classId);
    this.tidy(classId);
  }

  private beat(): void {
    const text = JSON.stringify({ type: 'beat' } satisfies LiveTold);
    for (const room of this.rooms.values())
      for (const line of room.lines) {
        line.check();
        line.send(text);
      }
  }

  private tidy(classId: ClassId): void {
    if (this.rooms.get(classId)?.isEmpty) this.rooms.delete(classId);
  }

  /** Everybody comes again, to whatever is there by then. */
  private empty(): void {
    for (const timer of this.waiting.values()) clearTimeout(timer);
    this.waiting.clear();
    const lines = [...this.rooms.values()].flatMap((room) => room.lines);
    this.rooms.clear();
    for (const line of lines) line.close(RESTART);
  }
}

/** What nobody waits for may fail without ending the server: it says so, and is done again the next time. */
function logged(work: () => void): void {
  try {
    work();
  } catch (error) {
    console.error('live:', error);
  }
}
