import ReconnectingWebSocket from 'partysocket/ws';
import { createStore, type StoreApi } from 'zustand';
import {
  BEAT_MISSED,
  LIVE_CLOSED,
  type ClassId,
  type Follower,
  type Following,
  type LiveMessage,
  type LiveTold,
  type PersonId,
  type ShowingMessage,
} from '@avrelle/core/wire';
import { changed, heard, NOTHING_SHOWN, toSayAgain, withStroke, type Numbered, type Shown } from '@avrelle/core/live';

/** A room as one window knows it. */
export interface RoomView extends Following {
  readonly connected: boolean;
  /** Everything was told at least once. */
  readonly isHere: boolean;
  readonly shown: Shown;
  readonly people: readonly Follower[];
  readonly teaches: boolean;
  /** Why the server ended the connection for good. */
  readonly ended: keyof typeof LIVE_CLOSED | undefined;
}

/** What of a WebSocket that opens again by itself is used. */
export interface RoomSocket {
  send(text: string): void;
  close(): void;
  reconnect(): void;
  onopen: (() => void) | null;
  onclose: ((event: { readonly code: number }) => void) | null;
  onmessage: ((event: { readonly data: string }) => void) | null;
}

/** In milliseconds: what is shown is there again within a second; a whole class does not come in the same moment. */
const again = () => ({
  minReconnectionDelay: 100 + Math.random() * 150,
  maxReconnectionDelay: 600,
  reconnectionDelayGrowFactor: 1.6,
});

function openSocket(classId: ClassId): RoomSocket {
  const { protocol, host } = location;
  const socket = new ReconnectingWebSocket(
    `${protocol === 'https:' ? 'wss' : 'ws'}://${host}/api/classes/${classId}/live`,
    [],
    { ...again(), maxEnqueuedMessages: 0, shouldReconnectOnClose: ({ code }) => endedBy(code) === undefined },
  );
  return socket as unknown as RoomSocket;
}

const endedBy = (code: number): RoomView['ended'] =>
  (Object.keys(LIVE_CLOSED) as (keyof typeof LIVE_CLOSED)[]).find((why) => LIVE_CLOSED[why] === code);

/** Answered by a change of what is shown, each by one. */
const STAYS: readonly string[] = ['place', 'blank', 'answers', 'ask'];

/** The connection of one window to the room of a class: what is shown there, and saying something. */
export class RoomConnection {
  readonly store: StoreApi<RoomView> = createStore<RoomView>(() => ({
    connected: false,
    isHere: false,
    shown: NOTHING_SHOWN,
    people: [],
    teaches: false,
    around: false,
    hand: false,
    ended: undefined,
  }));
  private readonly socket: RoomSocket;
  private silence: ReturnType<typeof setTimeout> | undefined;
  /** How many changes of mine the server has not told of yet. */
  private unheard = 0;
  /** Everything was asked for, and has not come yet. */
  private asked = false;

  constructor(
    classId: ClassId,
    private readonly me: PersonId,
    open: (classId: ClassId) => RoomSocket = openSocket,
  ) {
    this.socket = open(classId);
    this.socket.onopen = () => this.listen();
    this.socket.onclose = ({ code }) => {
      clearTimeout(this.silence);
      this.unheard = 0;
      this.asked = false;
      this.store.setState({ connected: false, ended: endedBy(code) });
    };
    this.socket.onmessage = ({ data }) => {
      this.listen();
      this.hear(JSON.parse(data) as LiveTold);
    };
  }

  /** Shows at once here what it changes, and on the other screens when it has arrived. */
  say(message: LiveMessage): void {
    const { connected, shown } = this.store.getState();
    const { live } = shown;
    if (connected) this.socket.send(JSON.stringify(message));
    if (message.type === 'around') this.store.setState({ around: message.on });
    else if (message.type === 'hand') this.store.setState({ hand: message.up });
    else if (live && STAYS.includes(message.type)) {
      if (connected) this.unheard += 1;
      this.see({
        ...shown,
        live: changed(live, message as ShowingMessage),
        ...(message.type === 'place' ? NO_INK : {}),
      });
    } else if (!connected && live) this.see(alone(shown, message));
  }

  close(): void {
    clearTimeout(this.silence);
    this.socket.onclose = null;
    this.socket.close();
  }

  private see(shown: Shown): void {
    this.store.setState({ shown });
  }

  /** A connection of which nothing is heard is none. */
  private listen(): void {
    clearTimeout(this.silence);
    this.silence = setTimeout(() => {
      this.store.setState({ connected: false });
      this.socket.reconnect();
    }, BEAT_MISSED);
  }

  private hear(told: LiveTold): void {
    switch (told.type) {
      case 'people':
        return this.store.setState({ people: told.people });
      case 'state':
        return this.begin(told);
      case 'beat':
        return;
      case 'refused':
        return this.askForAll();
      case 'live':
        this.unheard = Math.max(0, this.unheard - 1);
        return this.next(told);
      default:
        return this.next(told);
    }
  }

  private next(told: Numbered): void {
    const { shown } = this.store.getState();
    const after = heard(shown, told);
    if (!after) this.askForAll();
    // What I did since is not undone by what the server says of what I did before.
    else if (told.type === 'live' && this.unheard > 0 && told.live?.by.id === this.me)
      this.see({ ...shown, n: after.n });
    else this.see(after);
  }

  /** Once, however much comes meanwhile: who is far behind is not sent it again and again. */
  private askForAll(): void {
    if (this.asked) return;
    this.asked = true;
    this.socket.send(JSON.stringify({ type: 'whole' } satisfies LiveMessage));
  }

  /** Everything, as the server knows it: at the beginning, after a connection was lost, when one is called back. */
  private begin(told: Extract<LiveTold, { readonly type: 'state' }>): void {
    const before = this.store.getState();
    const theirs = heard(before.shown, told)!;
    const again = before.isHere && !before.connected ? toSayAgain(before.shown, theirs, this.me) : [];
    const me = told.me ?? (told.live ? { around: before.around, hand: before.hand } : { around: false, hand: false });
    this.unheard = 0;
    this.asked = false;
    this.store.setState({ connected: true, isHere: true, shown: theirs, teaches: told.teaches, ...me });
    for (const message of again) this.say(message);
    if (told.me === null && me.around) this.say({ type: 'around', on: true, at: null });
    if (told.me === null && me.hand) this.say({ type: 'hand', up: true });
  }
}

const NO_INK = { ink: [], pointer: null };

/** What of ink and place shows here while nobody else can see it. */
function alone(shown: Shown, message: LiveMessage): Shown {
  switch (message.type) {
    case 'top':
      return { ...shown, live: shown.live && { ...shown.live, top: message.at } };
    case 'ink':
      return { ...shown, ink: withStroke(shown.ink, message) };
    case 'wipe':
      return { ...shown, ink: [] };
    default:
      return shown;
  }
}
