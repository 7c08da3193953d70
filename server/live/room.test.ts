import { expect, test } from '@jest/globals';
import type { LiveTold } from '@avrelle/core/wire';
import { begun, heard, NOTHING_SHOWN, type Numbered } from '@avrelle/core/live';
import { Room, type Line } from './room';

const SOURCE = '01940000-0000-7000-8000-000000000001';
const place = (start: number) => ({ sourceId: SOURCE, annotationId: null, range: { start, end: start + 1 } });
const teacher = { id: 't', name: 'Aldous', role: 'teacher' as const };
const student = { id: 's', name: 'Ines', role: 'student' as const };

const lineOf = () => {
  const told: LiveTold[] = [];
  return {
    told,
    bufferedAmount: 0,
    send: (text: string) => void told.push(JSON.parse(text) as LiveTold),
    close: () => {},
    check: () => {},
  };
};
const roomOf = () => {
  const live = begun(
    { classId: 'c', by: teacher, startedAt: '2026-12-01T09:00:00.000Z' },
    { walkthroughId: null, place: place(0), step: null, takeOver: false },
    null,
  );
  return new Room(live, { now: () => '2026-12-01T09:00:00.000Z', keep: () => {}, peopleChanged: () => {} });
};
const seen = (told: readonly LiveTold[]) =>
  told.filter((one): one is Numbered => 'n' in one).reduce((shown, one) => heard(shown, one)!, NOTHING_SHOWN);

test('a line that is far behind is passed over, and told everything once it has caught up', () => {
  const room = roomOf();
  const [shows, slow, quick] = [lineOf(), lineOf(), lineOf()];
  room.join(teacher, shows);
  room.join(student, slow);
  room.join({ ...student, id: 's2' }, quick);
  const say = (at: number): void => room.hear(teacher, shows as Line, { type: 'top', at });
  slow.bufferedAmount = 1_000_000;
  for (let at = 1; at <= 50; at++) say(at);
  expect([slow.told.length, quick.told.length]).toEqual([1, 51]);
  slow.bufferedAmount = 0;
  say(51);
  say(52);
  expect(slow.told.map(({ type }) => type)).toEqual(['state', 'state', 'top']);
  expect(seen(slow.told)).toEqual(seen(quick.told));
  expect(seen(slow.told).live!.top).toBe(52);
});

test('one follows with two windows: lost only when both are', () => {
  const room = roomOf();
  const lines = [lineOf(), lineOf()];
  const shows = lineOf();
  room.join(teacher, shows);
  for (const line of lines) room.join(student, line);
  const people = () => {
    room.tellPeople();
    return shows.told.findLast((one) => one.type === 'people')!.people;
  };
  room.leave(student, lines[0]!, 1006);
  expect(people()).toMatchObject([{ id: 's', lostAt: null }]);
  room.leave(student, lines[1]!, 1006);
  expect(people()).toMatchObject([{ id: 's', lostAt: '2026-12-01T09:00:00.000Z' }]);
});
