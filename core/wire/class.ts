import { number, object, string, type InferType } from 'yup';
import type { ClassLabel, SourceRow } from './source';

export const TINTS = ['tide', 'moss', 'heather', 'clay'] as const;

export const classPutSchema = object({
  /** The version that was seen; absent for a new one. */
  version: number().integer().min(1),
  name: string().trim().required('Give the class a name.').max(80),
  tint: string().oneOf(TINTS).required(),
}).noUnknown();
export const joinSchema = object({
  code: string().trim().uppercase().required('Write the code your teacher gave you.').max(20),
}).noUnknown();
export type ClassPut = InferType<typeof classPutSchema>;

/** How many readings of a class come at once. */
export const READINGS_AT_ONCE = 60;
export const readingsSchema = object({ offset: number().integer().min(0).max(1_000_000).default(0) }).noUnknown();

export type ClassRole = 'teacher' | 'assistant' | 'student';

export interface ClassRow extends ClassLabel {
  readonly role: ClassRole;
  readonly people: number;
  readonly sources: number;
  readonly annotations: number;
}

export interface Member {
  readonly id: string;
  readonly name: string;
  readonly role: ClassRole;
  readonly annotations: number;
  readonly replies: number;
}

export interface ClassDetail extends ClassRow {
  readonly version: number;
  /** The code to join with; shown to teachers and assistants. Null for others, and where nobody can join. */
  readonly code: string | null;
  readonly members: readonly Member[];
  /** The last added first, as many as come at once; `sources` says how many there are. */
  readonly readings: readonly SourceRow[];
}
