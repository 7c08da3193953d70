import { useCallback, useMemo, useRef } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { describe } from '@avrelle/core/anchor';
import { indexOf } from './text-index';
import { kindOf, type KindCode } from '@avrelle/core/key';
import { range, type Outline } from '@avrelle/core/text';
import type { Annotation, AnnotationPut, Me, SourceDetail } from '@avrelle/core/wire';
import { hideAnnotation, showAnnotation } from '../data/annotation-cache';
import { isOffline, ProblemError, request, wordsOf } from '../data/api';
import { keys } from '../data/queries';
import { useMessages } from '../ui/Messages';
import { EMPTY, remember, stepBack, stepForward, withdraw, type Fields, type History } from './changes';
import type { StreamRange } from './page-frame';

export interface NewMark {
  readonly range: StreamRange;
  readonly kind: KindCode;
  readonly note?: string;
  readonly tags?: readonly string[];
  readonly classIds: readonly string[];
}

export interface Marks {
  /** Shows the mark at once, writes it, and gives its id. */
  create(mark: NewMark): string;
  /** Resolves to false when the change did not hold; the person has been told why. */
  change(annotation: Annotation, fields: Fields, words: string): Promise<boolean>;
  remove(annotation: Annotation): void;
  reply(parent: Annotation, note: string): Promise<boolean>;
  undo(): void;
  redo(): void;
}

/** Where words stand that were not set down yet, by source; the note form finds them there. */
export const draftKey = (sourceId: string): string => `avrelle.draft.${sourceId}`;

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

/** What a field was before a change. */
function before(annotation: Annotation, key: string): unknown {
  if (key === 'deleted') return false;
  const { place } = annotation;
  if (key === 'place') return place?.byHand ? { start: place.start, end: place.end } : null;
  return annotation[key as keyof Annotation];
}

/** A place is shown at once where a person put it; what was found again only the server knows. */
function shownAs({ place }: Annotation, fields: Fields): object {
  if (!('place' in fields)) return fields;
  return fields.place && place ? { place: { ...place, ...fields.place, confidence: 1, byHand: true } } : {};
}

/** Writing, changing and undoing the annotations of one source. Every step shows at once and is undone when it fails. */
export function useMarks(source: SourceDetail | undefined, text: { text: string; outline: Outline } | undefined, me: Me): Marks {
  const client = useQueryClient();
  const messages = useMessages();
  const versions = useRef(new Map<string, number>());
  const storage = `avrelle.history.${source?.id ?? ''}`;

  const readHistory = useCallback((): History => (JSON.parse(sessionStorage.getItem(storage) ?? 'null') as History | null) ?? EMPTY, [storage]);
  const writeHistory = useCallback((history: History) => sessionStorage.setItem(storage, JSON.stringify(history)), [storage]);
  const offline = useCallback(() => messages.warn('No connection just now. What you wrote is kept on this page and sent as soon as the server answers.'), [messages]);
  const fresh = useCallback(() => { if (source) void client.invalidateQueries({ queryKey: keys.annotations(source.id) }); }, [client, source]);

  /** The writes of one annotation go out one after the other, however fast a person is. */
  const queue = useRef(new Map<string, Promise<unknown>>());
  const inTurn = useCallback(<T,>(id: string, work: () => Promise<T>): Promise<T> => {
    const run = (queue.current.get(id) ?? Promise.resolve()).then(work);
    queue.current.set(id, run.catch(() => undefined));
    return run;
  }, []);

  const show = useCallback((id: string, fields: Fields): Annotation | undefined => {
    const known = client.getQueryData<readonly Annotation[]>(keys.annotations(source!.id))?.find((a) => a.id === id);
    if (fields.deleted) hideAnnotation(client, source!.id, id);
    else if (known) showAnnotation(client, { ...known, ...shownAs(known, fields) } as Annotation);
    return known;
  }, [client, source]);
  const send = useCallback(async (id: string, fields: Fields): Promise<boolean> => {
    const version = Math.max(versions.current.get(id) ?? 1, show(id, fields)?.version ?? 1);
    try {
      const after = await persist(() => ('place' in fields ? request<Annotation>('PUT', `/api/annotations/${id}/place`, { versionId: source!.versionId, start: fields.place?.start ?? null, end: fields.place?.end ?? null }) : request<Annotation>('PATCH', `/api/annotations/${id}`, { version, ...fields })), offline);
      versions.current.set(id, after.version);
      if (!fields.deleted) showAnnotation(client, after);
      return true;
    } catch (error) {
      if (error instanceof ProblemError && error.problem.code === 'stale') versions.current.set(id, (error.problem.current as Annotation).version);
      messages.warn(wordsOf(error));
      fresh();
      return false;
    }
  }, [client, source, messages, offline, fresh, show]);
  const patch = useCallback((id: string, fields: Fields): Promise<boolean> => {
    show(id, fields);
    return inTurn(id, () => send(id, fields));
  }, [show, send, inTurn]);

  const create = useCallback((mark: NewMark): string => {
    const id = v7(), now = new Date().toISOString();
    const anchor = describe(indexOf(text!), range(mark.range.start, mark.range.end));
    const put = { sourceId: source!.id, versionId: source!.versionId, kind: mark.kind, note: mark.note ?? '', tags: [...(mark.tags ?? [])], anchor, classIds: [...mark.classIds] };
    const place = { versionId: source!.versionId, state: 'exact' as const, ...anchor.position, confidence: 1, candidates: [], byHand: false };
    showAnnotation(client, { ...put, place, id, author: { id: me.id, name: me.name }, rootId: null, parentId: null, createdAt: now, updatedAt: now, version: 0 });
    inTurn(id, () => persist(() => request<Annotation>('PUT', `/api/annotations/${id}`, put as unknown as AnnotationPut), offline)).then(
      (stored) => showAnnotation(client, stored),
      (error: unknown) => {
        hideAnnotation(client, source!.id, id);
        if (mark.note) sessionStorage.setItem(draftKey(source!.id), mark.note);
        messages.warn(`${wordsOf(error)}${mark.note ? ' Your words are kept: select a passage and begin to write, and they are there.' : ''}`);
      },
    );
    writeHistory(remember(readHistory(), { id, words: `${kindOf(mark.kind).name} set down`, undo: { deleted: true }, redo: { deleted: false } }));
    return id;
  }, [client, source, text, me, messages, offline, readHistory, writeHistory, inTurn]);

  const change = useCallback(async (annotation: Annotation, fields: Fields, words: string): Promise<boolean> => {
    const former = Object.fromEntries(Object.keys(fields).map((key) => [key, before(annotation, key)])) as Fields;
    const made = { id: annotation.id, words, undo: former, redo: fields };
    writeHistory(remember(readHistory(), made));
    const held = await patch(annotation.id, fields);
    if (!held) writeHistory(withdraw(readHistory(), made));
    return held;
  }, [patch, readHistory, writeHistory]);

  const step = useCallback((take: typeof stepBack, side: 'undo' | 'redo') => {
    const taken = take(readHistory());
    if (!taken) return messages.tell(side === 'undo' ? 'There is nothing to undo in this visit.' : 'There is nothing to do again.');
    writeHistory(taken.history);
    void patch(taken.change.id, taken.change[side]).then((held) => held && messages.tell(`${side === 'undo' ? 'Undone' : 'Done again'}: ${taken.change.words}`));
  }, [patch, messages, readHistory, writeHistory]);

  const undo = useCallback(() => step(stepBack, 'undo'), [step]);
  const redo = useCallback(() => step(stepForward, 'redo'), [step]);

  const remove = useCallback((annotation: Annotation) => {
    const words = `${kindOf(annotation.kind).name} removed`;
    void change(annotation, { deleted: true }, words).then((held) => held && messages.tell(`${words}.`, { label: 'Undo', run: undo }));
  }, [change, messages, undo]);

  const reply = useCallback(async (parent: Annotation, note: string): Promise<boolean> => {
    const id = v7();
    try {
      showAnnotation(client, await persist(() => request<Annotation>('PUT', `/api/replies/${id}`, { parentId: parent.id, note }), offline));
      return true;
    } catch (error) {
      messages.warn(wordsOf(error));
      return false;
    }
  }, [client, messages, offline]);

  return useMemo(() => ({ create, change, remove, reply, undo, redo }), [create, change, remove, reply, undo, redo]);
}
