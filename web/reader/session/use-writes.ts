import { useCallback, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Kind, KindCode } from '@avrelle/core/legend';
import type { Annotation, GroupId, InGroup, SourceDetail, SourceId } from '@avrelle/core/wire';
import { annotationsIn, showAnnotation } from '../../data/annotation-cache';
import { ProblemError, wordsOf } from '../../data/api';
import { outbox, type Write as Sent } from '../../data/outbox';
import { rebase } from '../../data/outbox/rebase';
import { renew } from '../../data/queries';
import { underWay } from '../../data/under-way';
import { flush } from '../../data/deferred';
import { useMessages } from '../../ui/Messages';
import { shownAs, type Fields } from '../model/history';

export interface Write {
  readonly id: string;
  readonly fields: Fields;
  /** What the fields were where the change was begun. */
  readonly before: Fields;
  /** The version it was begun on; the one that is known now where nothing is said. */
  readonly version?: number;
}

export interface Writes {
  /** Shows changes at once and writes them, all or none; false when they did not hold and the person has been told why. */
  write(changes: readonly Write[]): Promise<boolean>;
  /** Stores one write and sends it after those before it. Rejects with what the server refused. */
  send(write: Sent): Promise<readonly Annotation[]>;
}

/** How kinds and groups look that a change names. */
interface Named {
  kindOf(code: KindCode): Kind | undefined;
  groupOf(id: GroupId): InGroup | undefined;
}

/** Writing of annotations: at once to the eye, stored, and in order to the server, whenever there is a connection. */
export function useWrites(source: SourceDetail, { kindOf, groupOf }: Named): Writes {
  const client = useQueryClient();
  const messages = useMessages();
  const [deleted] = useState(() => new Map<string, number>(deletedBefore(source.id)));

  const show = useCallback(
    ({ id, fields }: Write): { end(): void } | undefined => {
      const list = annotationsIn(client, source.id);
      const known = list.find((a) => a.id === id);
      if (!known) return undefined;
      const isHidden = fields.deleted && !list.some((a) => a.rootId === id || a.parentId === id);
      const change = underWay(id, (a) => (isHidden ? undefined : shownAs(a, fields, kindOf, groupOf)));
      showAnnotation(client, known);
      return change;
    },
    [client, source.id, kindOf, groupOf],
  );

  const send = useCallback((write: Sent) => outbox.add(source.id, write), [source.id]);

  const write = useCallback(
    async (changes: readonly Write[]): Promise<boolean> => {
      flush();
      const list = annotationsIn(client, source.id);
      const known = new Map(changes.map(({ id }) => [id, list.find((a) => a.id === id)]));
      const fitting = changes.map((change) => onTop(change, known.get(change.id)));
      if (fitting.includes(undefined)) {
        messages.warn(
          'This was changed elsewhere meanwhile, so it cannot be taken back. It is as it was changed last.',
        );
        return false;
      }
      const wanted = (fitting as readonly Write[]).filter(({ fields }) => Object.keys(fields).length > 0);
      if (wanted.length === 0) return true;
      const shown = wanted.map(show);
      const end = (): void => shown.forEach((change) => change?.end());
      const versionOf = (change: Write): number =>
        change.version ?? known.get(change.id)?.version ?? deleted.get(change.id) ?? 1;
      try {
        const answer = await send(asSent(source, wanted, versionOf));
        end();
        for (const after of answer) {
          deleted.set(after.id, after.version);
          if (after.deleted) rememberDeleted(source.id, after);
          else showAnnotation(client, after);
        }
        return true;
      } catch (error) {
        end();
        const current =
          error instanceof ProblemError && error.problem.code === 'stale'
            ? (error.problem.current as Annotation | undefined)
            : undefined;
        if (current) showAnnotation(client, current);
        messages.warn(wordsOf(error));
        void renew(client, 'annotations', source.id);
        return false;
      }
    },
    [client, source, messages, send, show, deleted],
  );

  return { write, send };
}

/** A step taken back, on top of what is known by now; undefined where somebody changed the same since. What was begun on a version says so, and is joined with others' changes where it is sent. */
function onTop(change: Write, known: Annotation | undefined): Write | undefined {
  if (change.version !== undefined || !known) return change;
  const rebased = rebase(change.fields, change.before, known);
  return rebased.type === 'fits' ? { ...change, fields: rebased.fields } : undefined;
}

/** A place is said of one annotation alone; all else is written together. */
function asSent(source: SourceDetail, changes: readonly Write[], versionOf: (change: Write) => number): Sent {
  const [first] = changes;
  if (first && 'place' in first.fields)
    return { type: 'place', id: first.id, versionId: source.versionId, place: first.fields.place ?? null };
  return {
    type: 'change',
    changes: changes.map((change) => ({
      id: change.id,
      version: versionOf(change),
      fields: change.fields,
      before: change.before,
    })),
  };
}

/** Versions of what was deleted in this visit: no list tells them any more, and taking it back after a reload needs them. */
const deletedKey = (sourceId: SourceId): string => `avrelle.deleted.${sourceId}`;
const deletedBefore = (sourceId: SourceId): [string, number][] =>
  JSON.parse(sessionStorage.getItem(deletedKey(sourceId)) ?? '[]') as [string, number][];
const rememberDeleted = (sourceId: SourceId, { id, version }: Annotation): void =>
  sessionStorage.setItem(
    deletedKey(sourceId),
    JSON.stringify([...new Map([...deletedBefore(sourceId), [id, version]])]),
  );
