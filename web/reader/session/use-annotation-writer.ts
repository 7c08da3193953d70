import { useCallback, useMemo } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { describe, type Anchor, type Spot } from '@avrelle/core/anchor';
import type { Kind } from '@avrelle/core/key';
import { range, type Outline } from '@avrelle/core/text';
import type { Annotation, AnnotationPut, Me, SourceDetail, ClassId } from '@avrelle/core/wire';
import { hideAnnotation, showAnnotation } from '../../data/annotation-cache';
import { wordsOf } from '../../data/api';
import { now, soon } from '../../data/soon';
import { useMessages } from '../../ui/Messages';
import { count } from '../../ui/when';
import {
  EMPTY,
  forget,
  partOf,
  remember,
  stepBack,
  stepForward,
  takeBack,
  withdraw,
  type Change,
  type Fields,
  type History,
} from '../model/history';
import type { Key } from './key';
import type { StreamRange } from '../../page/page-frame';
import { indexOf } from '../../page/text-index';
import { useWrites } from './use-writes';

export interface NewMark {
  readonly range: StreamRange;
  /** What is meant beside the words of the range, where it is no words. */
  readonly spot?: Spot | undefined;
  readonly kind: Kind;
  readonly note?: string;
  readonly tags?: readonly string[];
  readonly classIds: readonly ClassId[];
  /** What undoing it will call it, where it is not called by its kind. */
  readonly words?: string;
}

/** A step that held. */
export interface Step {
  /** Takes back this step, whatever was done since. */
  undo(): void;
}

export interface AnnotationWriter {
  /** Shows the mark at once, writes it, and gives its id. */
  create(mark: NewMark): string;
  /** Begun on the annotation as it is given. Resolves to false when the change did not hold; the person has been told why. */
  change(annotation: Annotation, fields: Fields, words: string): Promise<false | Step>;
  /** Several at once, as one step; each has fields of its own. */
  changeAll(changes: readonly (readonly [Annotation, Fields])[], words: string): Promise<false | Step>;
  /** Its words become those of another passage; `spot` is what is meant beside them from now on. */
  move(annotation: Annotation, to: StreamRange, spot?: Spot): void;
  /** A passage of this version as a change holds it. */
  passage(of: StreamRange, spot?: Spot): NonNullable<Fields['passage']>;
  remove(annotations: readonly Annotation[]): void;
  reply(parent: Annotation, note: string): Promise<boolean>;
  undo(): void;
  redo(): void;
}

/** Writing, changing and undoing the annotations of one source. Every step shows at once and is undone when it fails. */
export function useAnnotationWriter(
  source: SourceDetail,
  text: { text: string; outline: Outline } | undefined,
  me: Me,
  key: Key,
): AnnotationWriter {
  const client = useQueryClient();
  const messages = useMessages();
  const { write, send } = useWrites(source, key.find);
  const storage = `avrelle.history.${source.id}`;
  const readHistory = useCallback(
    (): History => (JSON.parse(sessionStorage.getItem(storage) ?? 'null') as History | null) ?? EMPTY,
    [storage],
  );
  const writeHistory = useCallback(
    (history: History) => sessionStorage.setItem(storage, JSON.stringify(history)),
    [storage],
  );
  const anchorOf = useCallback(
    (passage: StreamRange): Anchor => describe(indexOf(text!), range(passage.start, passage.end)),
    [text],
  );

  const passage = useCallback(
    (of: StreamRange, spot?: Spot) => ({
      versionId: source.versionId,
      anchor: { ...anchorOf(of), ...(spot ? { spot } : {}) },
    }),
    [source.versionId, anchorOf],
  );

  const create = useCallback(
    (mark: NewMark): string => {
      const id = v7();
      const at = new Date().toISOString();
      const { anchor } = passage(mark.range, mark.spot);
      const common = {
        sourceId: source.id,
        versionId: source.versionId,
        note: mark.note ?? '',
        tags: [...(mark.tags ?? [])],
        anchor,
        classIds: [...mark.classIds],
      };
      const place = {
        versionId: source.versionId,
        state: 'exact' as const,
        ...anchor.position,
        confidence: 1,
        candidates: [],
        byHand: false,
      };
      soon(() =>
        showAnnotation(client, {
          ...common,
          kind: mark.kind,
          place,
          id,
          author: { id: me.id, name: me.name },
          rootId: null,
          parentId: null,
          createdAt: at,
          updatedAt: at,
          version: 0,
        }),
      );
      send({ type: 'create', id, put: { ...common, kind: mark.kind.code } as unknown as AnnotationPut }).then(
        ([stored]) => stored && soon(() => showAnnotation(client, stored)),
        (error: unknown) => {
          now();
          hideAnnotation(client, source.id, id);
          messages.warn(
            `${wordsOf(error)}${mark.note ? ' Your words are kept beside the passage as an unfinished note.' : ''}`,
          );
        },
      );
      writeHistory(
        remember(readHistory(), {
          words: mark.words ?? `${mark.kind.name} set down`,
          parts: [{ id, undo: { deleted: true }, redo: { deleted: false } }],
        }),
      );
      return id;
    },
    [client, source, passage, me, messages, readHistory, writeHistory, send],
  );

  const carryOut = useCallback(
    async ({ parts, words }: Change, side: 'undo' | 'redo'): Promise<void> => {
      const held = await write(
        parts.map((part) => ({ id: part.id, fields: part[side], before: part[side === 'undo' ? 'redo' : 'undo'] })),
      );
      if (!held) writeHistory(forget(readHistory(), { parts, words }));
      else messages.tell(`${side === 'undo' ? 'Undone' : 'Done again'}: ${words}`);
    },
    [write, messages, readHistory, writeHistory],
  );
  /** One step, whatever was done since; nothing where it was taken back before. */
  const takeBackStep = useCallback(
    (made: Change): void => {
      const history = takeBack(readHistory(), made);
      if (!history) return messages.tell('That was undone already.');
      writeHistory(history);
      void carryOut(made, 'undo');
    },
    [carryOut, messages, readHistory, writeHistory],
  );

  const changeAll = useCallback<AnnotationWriter['changeAll']>(
    async (changes, words) => {
      const made: Change = {
        words,
        parts: changes
          .map(([annotation, fields]) => partOf(annotation, fields))
          .filter(({ redo }) => Object.keys(redo).length > 0),
      };
      if (made.parts.length === 0) return { undo: () => undefined };
      writeHistory(remember(readHistory(), made));
      const begun = new Map(changes.map(([{ id, version }]) => [id, version]));
      const held = await write(
        made.parts.map(({ id, redo, undo }) => ({ id, fields: redo, before: undo, version: begun.get(id)! })),
      );
      if (!held) writeHistory(withdraw(readHistory(), made));
      return held && { undo: () => takeBackStep(made) };
    },
    [write, readHistory, writeHistory, takeBackStep],
  );
  const change = useCallback<AnnotationWriter['change']>(
    (annotation, fields, words) => changeAll([[annotation, fields]], words),
    [changeAll],
  );
  const move = useCallback(
    (annotation: Annotation, to: StreamRange, spot?: Spot) =>
      void change(
        annotation,
        { passage: passage(to, spot) },
        spot ? 'drawing changed' : `${annotation.kind.name} moved`,
      ),
    [change, passage],
  );

  const step = useCallback(
    (take: typeof stepBack, side: 'undo' | 'redo') => {
      const taken = take(readHistory());
      if (!taken)
        return messages.tell(
          side === 'undo' ? 'There is nothing to undo in this visit.' : 'There is nothing to do again.',
        );
      writeHistory(taken.history);
      void carryOut(taken.change, side);
    },
    [carryOut, messages, readHistory, writeHistory],
  );
  const undo = useCallback(() => step(stepBack, 'undo'), [step]);
  const redo = useCallback(() => step(stepForward, 'redo'), [step]);

  const remove = useCallback(
    (annotations: readonly Annotation[]) => {
      const [only] = annotations;
      const words =
        annotations.length === 1
          ? `${only!.anchor?.spot?.type === 'drawn' ? 'Drawing' : only!.kind.name} removed`
          : `${count(annotations.length, 'mark')} removed`;
      void changeAll(
        annotations.map((a) => [a, { deleted: true }]),
        words,
      ).then((held) => held && messages.tell(`${words}.`, { label: 'Undo', run: held.undo }));
    },
    [changeAll, messages],
  );

  const reply = useCallback(
    async (parent: Annotation, note: string): Promise<boolean> => {
      const id = v7();
      try {
        for (const stored of await send({
          type: 'reply',
          id,
          parentId: parent.id,
          rootId: parent.rootId ?? parent.id,
          note,
        }))
          showAnnotation(client, stored);
        return true;
      } catch (error) {
        messages.warn(wordsOf(error));
        return false;
      }
    },
    [client, messages, send],
  );

  return useMemo(
    () => ({ create, change, changeAll, move, passage, remove, reply, undo, redo }),
    [create, change, changeAll, move, passage, remove, reply, undo, redo],
  );
}
