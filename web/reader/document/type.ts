import { number, object, string } from 'yup';
import type { SourceKind } from '@avrelle/core/wire';

export const FACES = ['literata', 'atkinson'] as const;
export const PAPERS = ['as Avrelle', 'day', 'night'] as const;

/** How text is set for reading. Lengths in pixels; the line in sizes of the type. */
export interface Type {
  readonly size: number;
  readonly line: number;
  /** Width of the column. */
  readonly measure: number;
  readonly face: (typeof FACES)[number];
  /** The theme of the page itself, whatever that of Avrelle. */
  readonly paper: (typeof PAPERS)[number];
}

export const USUAL: Type = { size: 18, line: 1.67, measure: 600, face: 'literata', paper: 'as Avrelle' };

export const RANGES = {
  size: { least: 13, most: 32, step: 1 },
  line: { least: 1.2, most: 2.4, step: 0.1 },
  measure: { least: 320, most: 980, step: 20 },
} as const;
export type Adjustable = keyof typeof RANGES;

const within = (of: Adjustable) => number().required().min(RANGES[of].least).max(RANGES[of].most);
const schema = object({
  size: within('size'),
  line: within('line'),
  measure: within('measure'),
  face: string().oneOf(FACES).required(),
  paper: string().oneOf(PAPERS).required(),
}).noUnknown();

/** A value moved by some steps, kept within what is sensible; the same object where it stays. */
export function adjust(type: Type, what: Adjustable, steps: number): Type {
  const { least, most, step } = RANGES[what];
  const to = Math.round(Math.min(most, Math.max(least, type[what] + steps * step)) * 100) / 100;
  return to === type[what] ? type : { ...type, [what]: to };
}

/** Kept on this device, for each kind of source: a table wants another column than a book. */
const storageKey = (kind: SourceKind): string => `avrelle.type.${kind}`;

export function readType(storage: Pick<Storage, 'getItem'>, kind: SourceKind): Type {
  try {
    return schema.validateSync(JSON.parse(storage.getItem(storageKey(kind)) ?? 'null'), { strict: true }) as Type;
  } catch {
    return USUAL;
  }
}

export const writeType = (storage: Pick<Storage, 'setItem'>, kind: SourceKind, type: Type): void =>
  storage.setItem(storageKey(kind), JSON.stringify(type));
