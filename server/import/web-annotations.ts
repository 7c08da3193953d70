import { isDrawnSpot } from '@avrelle/core/ink';
import { DRAWING } from '@avrelle/core/export';
import { describe, fromSelectors, SelectorError, type Anchor, type TextIndex } from '@avrelle/core/anchor';
import { PLAIN_NOTE, type Kind, type KindCode } from '@avrelle/core/legend';
import { TAG, UUID_V7, type PersonId } from '@avrelle/core/wire';

/** One annotation read from a file of W3C annotations, or why it could not be. */
export type Brought =
  | {
      readonly ok: true;
      readonly type: 'mark';
      readonly name: string;
      readonly anchor: Anchor;
      readonly kind: KindCode;
      readonly note: string;
      readonly tags: readonly string[];
    }
  /** An answer to another of the file, or to one that is there, by that one's name. */
  | { readonly ok: true; readonly type: 'reply'; readonly name: string; readonly to: string; readonly note: string }
  | { readonly ok: false; readonly why: string };

/** The annotations of a file: one, a list, a page or a collection (Web Annotation Data Model, 3 and 5). */
export function annotationsIn(given: unknown): readonly unknown[] {
  if (Array.isArray(given)) return given;
  const { items, first } = record(given);
  if (Array.isArray(items)) return items;
  return first === undefined ? [given] : annotationsIn(first);
}

const record = (value: unknown): Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
function list(value: unknown): readonly unknown[] {
  if (value === undefined) return [];
  return Array.isArray(value) ? value : [value];
}

const LONGEST_NOTE = 20_000;

/** Finds the passage of one annotation in the text and reads its bodies. `me` is whose answers go without a name. Never throws on what the file holds. */
export function readWebAnnotation(index: TextIndex, kinds: readonly Kind[], given: unknown, me = ''): Brought {
  const { id, type, body, bodyValue, target, motivation } = record(given);
  if (!list(type).includes('Annotation')) return { ok: false, why: 'It is not of the type Annotation.' };
  const to = list(target)[0];
  const name = nameOf(id, given);
  try {
    const bodies = list(body).map((b) => (typeof b === 'string' ? { value: b, purpose: undefined } : record(b)));
    const told = (purpose: string): string[] =>
      bodies.filter((b) => b.purpose === purpose && typeof b.value === 'string').map((b) => String(b.value));
    const plain = bodies
      .filter((b) => b.purpose === undefined && typeof b.value === 'string' && b.id === undefined)
      .map((b) => String(b.value));
    const note = [
      ...told('commenting'),
      ...told('describing'),
      ...plain,
      ...(typeof bodyValue === 'string' ? [bodyValue] : []),
    ]
      .join('\n\n')
      .slice(0, LONGEST_NOTE);
    if (list(motivation).includes('replying')) return replyTo(to, name, signed(note, given, me));
    return {
      ok: true,
      type: 'mark',
      name,
      anchor: anchorOf(index, record(to)),
      kind: kindFor(kinds, told('classifying'), motivation, note),
      note,
      tags: told('tagging')
        .map((t) => t.trim().toLowerCase().replace(/\s+/g, '-'))
        .filter((t) => TAG.test(t))
        .slice(0, 40),
    };
  } catch (error) {
    if (error instanceof SelectorError || error instanceof RangeError) return { ok: false, why: error.message };
    throw error;
  }
}

/** An annotation whose target is not a part of the source means all of it. */
function wholeSource(index: TextIndex): Anchor {
  const { start, end } = index.outline[0] ?? { start: 0, end: index.text.length };
  return { ...describe(index, { start, end }), spot: { type: 'whole' } };
}

function anchorOf(index: TextIndex, target: Readonly<Record<string, unknown>>): Anchor {
  const { selector, [DRAWING]: drawing } = target;
  const anchor = selector === undefined ? wholeSource(index) : fromSelectors(index, selector);
  return isDrawnSpot(drawing) ? { ...anchor, spot: drawing } : anchor;
}

function replyTo(target: unknown, name: string, note: string): Brought {
  const to = typeof target === 'string' ? target : (record(target).source ?? record(target).id);
  if (typeof to !== 'string') return { ok: false, why: 'It answers another annotation, but does not say which.' };
  if (!note.trim()) return { ok: false, why: 'It answers another annotation without a word.' };
  return { ok: true, type: 'reply', name, to: uuidOf(to) ?? to, note };
}

/** An answer of somebody else says whose it was: it is kept under the name of whoever brings it in. */
function signed(note: string, given: unknown, me: PersonId): string {
  const creator = record(list(record(given).creator)[0]).name;
  return typeof creator === 'string' && creator.trim() && creator !== me
    ? `${creator.trim().slice(0, 80)}: ${note}`
    : note;
}

/** By what the same annotation is known when it comes again: its id, else all that it says. */
const nameOf = (id: unknown, given: unknown): string =>
  typeof id === 'string' && id ? (uuidOf(id) ?? id) : JSON.stringify(given);

const uuidOf = (id: unknown): string | null => {
  const bare = String(id)
    .replace(/^urn:uuid:/, '')
    .toLowerCase();
  return UUID_V7.test(bare) ? bare : null;
};

/** The kind of that name in the reader's own Legend; else what the motivation comes nearest to. */
function kindFor(kinds: readonly Kind[], classes: readonly string[], motivation: unknown, note: string): KindCode {
  const names = classes.map((name) => name.trim().toLowerCase());
  const known = [...kinds, PLAIN_NOTE].find(
    ({ code, name }) => names.includes(name.toLowerCase()) || names.includes(code),
  );
  if (known) return known.code;
  if (list(motivation).includes('questioning')) return 'question';
  return note ? 'note' : 'keep';
}
