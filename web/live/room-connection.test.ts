import { afterEach, beforeEach, expect, test } from '@jest/globals';
import type { Live, LiveMessage, LiveTold } from '@avrelle/core/wire';
import { begun } from '@avrelle/core/live';
import { RoomConnection, type RoomSocket } from './room-connection';

const place = (start: number) => ({ sourceId: 's', annotationId: null, range: { start, end: start + 1 } });
const live: Live = begun(
  { classId: 'c', by: { id: 'me', name: 'Aldous' }, startedAt: '2026-12-01T09:00:00.000Z' },
  { walkthroughId: null, place: place(0), step: null, takeOver: false },
  null,
);
const state = (more: object = {}): LiveTold => ({
  ...{ type: 'state', n: 0, live, ink: [], pointer: null, me: null, teaches: true },
  ...more,
});

let said: LiveMessage[];
let socket: RoomSocket;
let room: RoomConnection;
beforeEach(() => {
  said = [];
  socket = {
    send: (text) => void said.push(JSON.parse(text) as LiveMessage),
    close: () => undefined,
    reconnect: () => undefined,
    onopen: null,
    onclose: null,
    onmessage: null,
  };
  room = new RoomConnection('c', 'me', () => socket);
});
afterEach(() => room.close());
const told = (message: LiveTold): void => socket.onmessage!({ data: JSON.stringify(message) });
const open = (message = state()): void => {
  socket.onopen!();
  told(message);
};
const view = () => room.store.getState();
const at = () => view().shown.live!.place.range!.start;

test('who shows sees what they did last, however late the server tells of what they did before', () => {
  open();
  room.say({ type: 'place', place: place(1), step: null });
  room.say({ type: 'place', place: place(2), step: null });
  expect(at()).toBe(2);
  told({ type: 'live', n: 1, live: { ...live, place: place(1) } });
  expect(at()).toBe(2);
  told({ type: 'live', n: 2, live: { ...live, place: place(2) } });
  expect([at(), view().shown.n]).toEqual([2, 2]);
  // Somebody else has taken over meanwhile: that is believed at once.
  room.say({ type: 'blank', on: true });
  told({ type: 'live', n: 3, live: { ...live, by: { id: 'other', name: 'Sten' }, place: place(7) } });
  expect([at(), view().shown.live!.blank]).toEqual([7, false]);
});

test('what is done without a connection shows here, and everywhere once it is back', () => {
  open();
  socket.onclose!({ code: 1006 });
  expect(view().connected).toBe(false);
  room.say({ type: 'place', place: place(4), step: null });
  room.say({ type: 'blank', on: true });
  expect([at(), view().shown.live!.blank, said]).toEqual([4, true, []]);
  open(state({ me: { around: false, hand: false } }));
  expect(said).toEqual([
    { type: 'place', place: place(4), step: null },
    { type: 'blank', on: true },
  ]);
  expect([at(), view().connected]).toEqual([4, true]);
});

test('who follows asks for everything after a gap, and comes back as the server says', () => {
  const others = { ...live, by: { id: 'teacher', name: 'Aldous' } };
  open(state({ live: others, teaches: false }));
  room.say({ type: 'around', on: true, at: 3 });
  said = [];
  for (const n of [5, 6, 7]) told({ type: 'top', n, at: 9 });
  expect(said).toEqual([{ type: 'whole' }]);
  told(state({ n: 5, live: { ...others, top: 9 }, me: { around: true, hand: false } }));
  expect([view().around, view().shown.live!.top]).toEqual([true, 9]);
  told(state({ n: 5, live: others, me: { around: false, hand: false } }));
  expect(view().around).toBe(false);
});

test('what the server refuses has not happened here either', () => {
  open();
  room.say({ type: 'blank', on: true });
  told({ type: 'refused', words: 'That is no message of a page that is shown.' });
  expect(said.at(-1)).toEqual({ type: 'whole' });
  told(state({ me: { around: false, hand: false } }));
  expect(view().shown.live!.blank).toBe(false);
  // And what others do is heard again.
  told({ type: 'live', n: 1, live: { ...live, answers: true } });
  expect(view().shown.live!.answers).toBe(true);
});

test('a server that started anew is told who looks around and who has a hand up', () => {
  const others = { ...live, by: { id: 'teacher', name: 'Aldous' } };
  open(state({ live: others }));
  room.say({ type: 'around', on: true, at: 3 });
  room.say({ type: 'hand', up: true });
  socket.onclose!({ code: 1012 });
  said = [];
  open(state({ live: others }));
  expect(said.map(({ type }) => type)).toEqual(['around', 'hand']);
  socket.onclose!({ code: 1012 });
  said = [];
  // It has ended meanwhile: nobody looks around any more.
  open(state({ live: null }));
  expect([said, view().around, view().hand]).toEqual([[], false, false]);
});

test('who was removed or signed out is told so', () => {
  open();
  socket.onclose!({ code: 4403 });
  expect(view().ended).toBe('notMember');
});
