import { v7 } from 'uuid';
import type { Annotation } from '@avrelle/core/wire';
import { ProblemError } from '../api';
import { keepWords } from '../unfinished';
import { Outbox, type Ended } from './outbox';
import { SafeOutbox, StoredOutbox } from './store';
import type { Entry, Write } from './write';
import { call } from '../call';

export type { Entry, Write, AnnotationChange } from './write';

/** Told of what became of writes of other windows and earlier visits, and of waiting. */
export interface Watcher {
  refused(entry: Entry, error: ProblemError): void;
  ended(entry: Entry): void;
  waiting(waits: boolean): void;
}

const LOCK = 'avrelle.outbox';
const AGAIN_AFTER = 2_000;
let watcher: Watcher | undefined;
const channel = typeof BroadcastChannel === 'function' ? new BroadcastChannel(LOCK) : undefined;

/** Several at once all or none; a place is said of one annotation alone. */
async function send(write: Write): Promise<readonly Annotation[]> {
  switch (write.type) {
    case 'create':
      return [await call('PUT /api/annotations/:id', { params: { id: write.id }, body: write.put })];
    case 'reply':
      return [
        await call('PUT /api/replies/:id', {
          params: { id: write.id },
          body: { parentId: write.parentId, note: write.note },
        }),
      ];
    case 'place':
      return [
        await call('PUT /api/annotations/:id/place', {
          params: { id: write.id },
          body: {
            versionId: write.versionId,
            start: write.place?.start ?? null,
            end: write.place?.end ?? null,
          },
        }),
      ];
    case 'change':
      return call('POST /api/annotations/changes', {
        body: {
          changes: write.changes.map(({ id, version, fields }) => ({ id, version, ...fields })),
        },
      });
  }
}

/** The one queue of this browser. */
export const outbox = new Outbox({
  store: new SafeOutbox(new StoredOutbox()),
  send,
  newKey: v7,
  // Without locks (pages that are not served over https) two windows may send the same: it changes nothing more.
  alone: async (work) => {
    if (navigator.locks) await navigator.locks.request(LOCK, work);
    else await work();
  },
  pause: (tries) =>
    new Promise((later) => {
      const timer = setTimeout(later, AGAIN_AFTER * Math.min(8, 1 + tries));
      addEventListener(
        'online',
        () => {
          clearTimeout(timer);
          later();
        },
        { once: true },
      );
    }),
  announce: (ended) => channel?.postMessage(ended),
  fromBefore: (entry) => watcher?.ended(entry),
  refused: (entry, error, mine) => {
    keepWords(entry);
    if (!mine) watcher?.refused(entry, error);
  },
  waiting: (waits) => watcher?.waiting(waits),
});
if (channel) channel.onmessage = ({ data }: MessageEvent<Ended>) => outbox.heard(data);

/** The latest one who watches is told; whoever stops takes the watch from nobody else. */
export function watchOutbox(by: Watcher): () => void {
  watcher = by;
  by.waiting(outbox.isWaiting);
  return () => {
    if (watcher === by) watcher = undefined;
  };
}
