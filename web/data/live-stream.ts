import type { StreamEvent, PersonId } from '@avrelle/core/wire';

/** What is heard: an event, or that everything is to be asked for anew, or that the page is to start anew. */
export type Heard =
  | { readonly type: 'event'; readonly event: StreamEvent }
  | { readonly type: 'reload' }
  | { readonly type: 'restart' }
  | { readonly type: 'closed' };

export interface Listener {
  hear(heard: Heard): void;
  connected(stands: boolean): void;
}

/** What tabs tell each other. */
type Told =
  | { readonly personId: PersonId; readonly type: 'heard'; readonly heard: Heard; readonly cursor: string }
  | { readonly personId: PersonId; readonly type: 'state'; readonly connected: boolean }
  | { readonly personId: PersonId; readonly type: 'ask' };

const CHANNEL = 'avrelle.live';
/** A stream that the server has closed is asked for again after so many milliseconds. */
const AGAIN = 5_000;

/**
 * One event stream for all tabs of a browser, which holds six connections to a server at most: whichever tab has the
 * lock listens to the server and tells the others; when it goes, the next goes on after what it heard last. Browsers
 * without locks (pages that are not served over https) listen each for themselves.
 */
export class LiveStream {
  private readonly channel =
    typeof BroadcastChannel === 'function' && globalThis.navigator?.locks ? new BroadcastChannel(CHANNEL) : undefined;
  /** Heard of others before it was known who sits here. */
  private early: Told[] = [];
  private onTold = (told: Told): void => {
    this.early.push(told);
  };

  constructor() {
    if (this.channel) this.channel.onmessage = ({ data }: MessageEvent<Told>) => this.onTold(data);
  }

  /** Listens for a person, from a cursor on. Returns how to stop. */
  listen(personId: PersonId, since: string, listener: Listener): () => void {
    const stop = new AbortController();
    const { channel } = this;
    let cursor = since;
    let leave = (): void => undefined;
    let leads = false;
    let connected = true;
    const stands = (is: boolean): void => {
      connected = is;
      listener.connected(is);
      if (leads) channel?.postMessage({ personId, type: 'state', connected: is } satisfies Told);
    };
    const lead = (): void => {
      leads = true;
      leave = openStream(() => cursor, {
        connected: stands,
        hear: (heard, at) => {
          cursor = at || cursor;
          channel?.postMessage({ personId, type: 'heard', heard, cursor } satisfies Told);
          listener.hear(heard);
        },
      });
    };
    this.onTold = (told) => {
      if (told.personId !== personId) return;
      if (told.type === 'ask') {
        if (leads) stands(connected);
      } else if (told.type === 'state') stands(told.connected);
      else {
        cursor = told.cursor;
        listener.hear(told.heard);
      }
    };
    for (const told of this.early.splice(0)) this.onTold(told);
    if (channel) {
      channel.postMessage({ personId, type: 'ask' } satisfies Told);
      navigator.locks
        .request(
          `${CHANNEL}.${personId}`,
          { signal: stop.signal },
          () =>
            new Promise<void>((done) => {
              lead();
              stop.signal.addEventListener('abort', () => done());
            }),
        )
        .catch(() => undefined);
    } else lead();
    return () => {
      stop.abort();
      leave();
      this.onTold = (told) => {
        this.early.push(told);
      };
    };
  }
}

interface Stream {
  connected(stands: boolean): void;
  /** The cursor is '' where none came with it. */
  hear(heard: Heard, cursor: string): void;
}

function openStream(cursor: () => string, to: Stream): () => void {
  let source: EventSource;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let broken = false;
  const open = (): void => {
    source = new EventSource(`/api/events?since=${encodeURIComponent(cursor())}`);
    source.onopen = () => {
      to.connected(true);
      if (broken) to.hear({ type: 'reload' }, '');
      broken = false;
    };
    source.onerror = () => {
      broken = true;
      to.connected(false);
      if (source.readyState !== EventSource.CLOSED) return;
      to.hear({ type: 'closed' }, '');
      timer = setTimeout(open, AGAIN);
    };
    source.onmessage = ({ data, lastEventId }: MessageEvent<string>) =>
      to.hear({ type: 'event', event: JSON.parse(data) as StreamEvent }, lastEventId);
    for (const type of ['reload', 'restart'] as const)
      source.addEventListener(type, ({ lastEventId }) => to.hear({ type }, lastEventId));
  };
  open();
  return () => {
    clearTimeout(timer);
    source.close();
  };
}

/** Made with the page: what other tabs tell while it begins is not missed. */
export const liveStream = new LiveStream();
