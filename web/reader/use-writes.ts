import { useCallback, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Kind, KindCode } from '@avrelle/core/key';
import type { Annotation, SourceDetail } from '@avrelle/core/wire';
import { annotationsIn, hideAnnotation, showAnnotation } from '../data/annotation-cache';
import { isOffline, ProblemError, request, wordsOf } from '../data/api';
import { keys } from '../data/queries';
import { now } from '../data/soon';
import { useMessages } from '../ui/Messages';
import { shownAs, type Fields } from './changes';

const AGAIN_AFTER = 2_000;

/** Tries until the server answers; ids are the page's own, so a write that arrives twice changes nothing. */
async function persist<T>(send: () => Promise<T>, onWait: () => void): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      return await send();
    } catch (error) {
      if (!isOffline(error)) throw error;
      if (tries === 0) onWait();
      await new Promise((later) => setTimeout(later, AGAIN_AFTER));
    }
  }
}

export interface Write { readonly id: string; readonly fields: Fields }

export interface Writes {
  /** Shows changes at once and writes them, all or none; false when they did not hold and the person has been told why. */
  write(changes: readonly Write[]): Promise<boolean>;
  /** Sends one request for an annotation after those before it. Rejects with what the server refused. */
  send<T>(id: string, work: () => Promise<T>): Promise<T>;
}

/** Writing of annotations: at once to the eye, in order to the server, and again when there was no connection. */
export function useWrites(source: SourceDetail, kindOf: (code: KindCode) => Kind | undefined): Writes {
  const client = useQueryClient();
  const messages = useMessages();
  const [versions] = useState(() => ({ current: new Map<string, number>(deletedBefore(source.id)) }));
  const offline = useCallback(() => messages.warn('No connection just now. What you wrote is kept on this page and sent as soon as the server answers.'), [messages]);

  /** The writes of one annotation go out one after the other, however fast a person is. */
  const queue = useRef(new Map<string, Promise<unknown>>());
  const inTurn = useCallback(<T,>(ids: readonly string[], work: () => Promise<T>): Promise<T> => {
    const run = Promise.all(ids.map((id) => queue.current.get(id))).then(work), done = run.catch(() => undefined);
    for (const id of ids) queue.current.set(id, done);
    return run;
  }, []);
  const send = useCallback(<T,>(id: string, work: () => Promise<T>): Promise<T> => inTurn([id], () => persist(work, offline)), [inTurn, offline]);

  const show = useCallback(({ id, fields }: Write): Annotation | undefined => {
    const list = annotationsIn(client, source.id), known = list.find((a) => a.id === id);
    if (!known) return undefined;
    if (fields.deleted && !list.some((a) => a.rootId === id || a.parentId === id)) hideAnnotation(client, source.id, id);
    else showAnnotation(client, shownAs(known, fields, kindOf));
    return known;
  }, [client, source.id, kindOf]);

  const write = useCallback((changes: readonly Write[]): Promise<boolean> => {
    now();
    const before = changes.map(show);
    return inTurn(changes.map((c) => c.id), async () => {
      changes.forEach((change, n) => versions.current.set(change.id, Math.max(versions.current.get(change.id) ?? 1, show(change)?.version ?? before[n]?.version ?? 1)));
      try {
        for (const after of await persist(() => sendChanges(source, changes, versions.current), offline)) {
          versions.current.set(after.id, after.version);
          if (after.deleted) rememberDeleted(source.id, after);
          else showAnnotation(client, after);
        }
        return true;
      } catch (error) {
        if (error instanceof ProblemError && error.problem.code === 'stale') {
          const current = error.problem.current as Annotation;
          versions.current.set(current.id, current.version);
        }
        messages.warn(wordsOf(error));
        void client.invalidateQueries({ queryKey: keys.annotations(source.id) });
        return false;
      }
    });
  }, [client, source, messages, offline, inTurn, show, versions]);

  return { write, send };
}

/** Versions of what was deleted in this visit: no list tells them any more, and taking it back after a reload needs them. */
const deletedKey = (sourceId: string): string => `avrelle.deleted.${sourceId}`;
const deletedBefore = (sourceId: string): [string, number][] => JSON.parse(sessionStorage.getItem(deletedKey(sourceId)) ?? '[]') as [string, number][];
const rememberDeleted = (sourceId: string, { id, version }: Annotation): void => sessionStorage.setItem(deletedKey(sourceId), JSON.stringify([...new Map([...deletedBefore(sourceId), [id, version]])]));

/** A place is said of one annotation alone; all else is written together. */
async function sendChanges(source: SourceDetail, changes: readonly Write[], versions: ReadonlyMap<string, number>): Promise<readonly Annotation[]> {
  const [first] = changes;
  if (first && 'place' in first.fields) return [await request<Annotation>('PUT', `/api/annotations/${first.id}/place`, { versionId: source.versionId, start: first.fields.place?.start ?? null, end: first.fields.place?.end ?? null })];
  return request<Annotation[]>('POST', '/api/annotations/changes', { changes: changes.map(({ id, fields }) => ({ id, version: versions.get(id) ?? 1, ...fields })) });
}
