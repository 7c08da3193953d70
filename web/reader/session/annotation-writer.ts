import type { QueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import type { Audience } from '@avrelle/core/audience';
import { describe, type Anchor, type Spot } from '@avrelle/core/anchor';
import type { Kind } from '@avrelle/core/legend';
import { range, type Outline } from '@avrelle/core/text';
import type { Annotation, AnnotationPut, GroupId, InGroup, Me, SourceDetail } from '@avrelle/core/wire';
import { hideAnnotation, showAnnotation } from '../../data/annotation-cache';
import { wordsOf } from '../../data/api';
import { flush, defer } from '../../data/deferred';
import { sendReply } from '../../data/send-reply';
import type { Messages } from '../../ui/Messages';
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
import type { StreamRange } from '../../page/page-frame';
import { indexOf } from '../../page/text-index';
import type { Writes } from './use-writes';

export interface NewMark {
  readonly range: StreamRange;
  /** What is meant beside the words of the range, where it is no words. */
  readonly spot?: Spot | undefined;
  readonly kind: Kind;
  readonly note?: string;
  readonly tags?: readonly string[];
  readonly audience: Audience;
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

/** What the writer of one source works with. */
export interface WriterParts extends Writes {
  readonly client: QueryClient;
  readonly messages: Messages;
  readonly source: SourceDetail;
  readonly text: { readonly text: string; readonly outline: Outline } | undefined;
  readonly me: Me;
  /** A group of a class of mine. */
  readonly groupOf: (id: GroupId) => InGroup | undefined;
}

/** Writes, changes and undoes the annotations of one source. Every step shows at once and is undone when it fails. */
export function annotationWriter(parts: WriterParts): AnnotationWriter {
  const history = visitHistory(parts.source.id);
  const steps = stepping(parts, history);
  const passage = passages(parts);
  const changing = changes(parts, history, steps.takeBackStep, passage);
  return {
    ...changing,
    passage,
    create: creating(parts, history, passage),
    reply: (parent, note) => sendReply(parts, parent, note),
    undo: () => steps.step(stepBack, 'undo'),
    redo: () => steps.step(stepForward, 'redo'),
  };
}

/** What was done on a source in this visit; it outlives a reload. */
interface VisitHistory {
  read(): History;
  write(history: History): void;
}

function visitHistory(sourceId: string): VisitHistory {
  const key = `avrelle.history.${sourceId}`;
  return {
    read: () => (JSON.parse(sessionStorage.getItem(key) ?? 'null') as History | null) ?? EMPTY,
    write: (history) => sessionStorage.setItem(key, JSON.stringify(history)),
  };
}

type Passage = AnnotationWriter['passage'];

const passages =
  ({ source, text }: WriterParts): Passage =>
  (of: StreamRange, spot?: Spot) => {
    const anchor: Anchor = describe(indexOf(text!), range(of.start, of.end));
    return { versionId: source.versionId, anchor: { ...anchor, ...(spot ? { spot } : {}) } };
  };

/** A new annotation as the server shall store it, and as it is shown until then. */
function freshly({ source, me, groupOf }: WriterParts, id: string, mark: NewMark, { anchor }: ReturnType<Passage>) {
  const { id: sourceId, versionId } = source;
  const at = new Date().toISOString();
  const common = {
    sourceId,
    versionId,
    note: mark.note ?? '',
    tags: [...(mark.tags ?? [])],
    anchor,
    classIds: [...mark.audience.classIds],
  };
  const { teachersOnly = false, held = false, groupIds = [] } = mark.audience;
  const put = { ...common, kind: mark.kind.code, teachersOnly, held, groupIds } as unknown as AnnotationPut;
  const groups = groupIds.flatMap((one) => groupOf(one) ?? []);
  const shown: Annotation = {
    ...common,
    ...(teachersOnly ? { teachersOnly } : {}),
    ...(groups.length > 0 ? { groups } : {}),
    ...(held ? { held: common.classIds.map((classId) => ({ classId, releaseAt: null })) } : {}),
    id,
    kind: mark.kind,
    author: { id: me.id, name: me.name },
    place: { versionId, state: 'exact', ...anchor.position, confidence: 1, candidates: [], byHand: false },
    ...{ rootId: null, parentId: null, createdAt: at, updatedAt: at, version: 0 },
  } as Annotation;
  return { put, shown };
}

function creating(parts: WriterParts, history: VisitHistory, passage: Passage): AnnotationWriter['create'] {
  const { client, source, messages, send } = parts;
  return (mark) => {
    const id = v7();
    const { put, shown } = freshly(parts, id, mark, passage(mark.range, mark.spot));
    defer(() => showAnnotation(client, shown));
    send({ type: 'create', id, put }).then(
      ([stored]) => stored && defer(() => showAnnotation(client, stored)),
      (error: unknown) => {
        flush();
        hideAnnotation(client, source.id, id);
        const kept = mark.note ? ' Your words are kept beside the passage as an unfinished note.' : '';
        messages.warn(`${wordsOf(error)}${kept}`);
      },
    );
    const step = { id, undo: { deleted: true }, redo: { deleted: false } };
    history.write(remember(history.read(), { words: mark.words ?? `${mark.kind.name} added`, parts: [step] }));
    return id;
  };
}

type Side = 'undo' | 'redo';

/** Taking steps back, and doing them again. */
function stepping({ write, messages }: WriterParts, history: VisitHistory) {
  const carryOut = async ({ parts, words }: Change, side: Side): Promise<void> => {
    const held = await write(
      parts.map((part) => ({ id: part.id, fields: part[side], before: part[side === 'undo' ? 'redo' : 'undo'] })),
    );
    if (held) messages.tell(`${side === 'undo' ? 'Undone' : 'Redone'}: ${words}`);
    else history.write(forget(history.read(), { parts, words }));
  };
  return {
    /** One step, whatever was done since; nothing where it was taken back before. */
    takeBackStep: (made: Change): void => {
      const left = takeBack(history.read(), made);
      if (!left) return messages.tell('That was undone already.');
      history.write(left);
      void carryOut(made, 'undo');
    },
    step: (take: typeof stepBack, side: Side): void => {
      const taken = take(history.read());
      if (!taken)
        return messages.tell(side === 'undo' ? 'There is nothing to undo in this visit.' : 'There is nothing to redo.');
      history.write(taken.history);
      void carryOut(taken.change, side);
    },
  };
}

function changes(
  { write, messages }: WriterParts,
  history: VisitHistory,
  takeBackStep: (made: Change) => void,
  passage: Passage,
): Pick<AnnotationWriter, 'change' | 'changeAll' | 'move' | 'remove'> {
  const changeAll: AnnotationWriter['changeAll'] = async (all, words) => {
    const parts = all
      .map(([annotation, fields]) => partOf(annotation, fields))
      .filter(({ redo }) => Object.keys(redo).length > 0);
    if (parts.length === 0) return { undo: () => undefined };
    const made: Change = { words, parts };
    history.write(remember(history.read(), made));
    const begun = new Map(all.map(([{ id, version }]) => [id, version]));
    const held = await write(
      parts.map(({ id, redo, undo }) => ({ id, fields: redo, before: undo, version: begun.get(id)! })),
    );
    if (!held) history.write(withdraw(history.read(), made));
    return held && { undo: () => takeBackStep(made) };
  };
  const change: AnnotationWriter['change'] = (annotation, fields, words) => changeAll([[annotation, fields]], words);
  return {
    changeAll,
    change,
    move: (annotation, to, spot) => {
      const words = spot ? 'drawing changed' : `${annotation.kind.name} moved`;
      void change(annotation, { passage: passage(to, spot) }, words);
    },
    remove: (annotations) => {
      const words = removedWords(annotations);
      void changeAll(
        annotations.map((a) => [a, { deleted: true }]),
        words,
      ).then((held) => held && messages.tell(`${words}.`, { label: 'Undo', run: held.undo }));
    },
  };
}

function removedWords(annotations: readonly Annotation[]): string {
  const [only] = annotations;
  if (!only || annotations.length > 1) return `${count(annotations.length, 'mark')} removed`;
  return `${only.anchor?.spot?.type === 'drawn' ? 'Drawing' : only.kind.name} removed`;
}
