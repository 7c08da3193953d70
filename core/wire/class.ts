import type { NamedGroup } from '../audience/audience';
import type { GroupId, PersonId } from './ids';
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

export const readingsSchema = object({ offset: number().integer().min(0).max(1_000_000).default(0) }).noUnknown();

export const CLASS_ROLES = ['teacher', 'assistant', 'student'] as const;
export type ClassRole = (typeof CLASS_ROLES)[number];
export const roleChangeSchema = object({ role: string().oneOf(CLASS_ROLES).required() }).noUnknown();

export interface ClassRow extends ClassLabel {
  readonly role: ClassRole;
  readonly people: number;
  readonly sources: number;
  readonly annotations: number;
  /** Since when it is only looked at. */
  readonly archivedAt: string | null;
  /** Its groups; for a student, their own alone. */
  readonly groups: readonly NamedGroup[];
}

export interface Member {
  readonly id: PersonId;
  readonly name: string;
  readonly role: ClassRole;
  /** The group they are in. */
  readonly groupId: GroupId | null;
  readonly annotations: number;
  readonly replies: number;
}

export interface ClassDetail extends ClassRow {
  readonly version: number;
  /** Of how its groups are made up. */
  readonly groupsVersion: number;
  /** The code to join with; shown to teachers and assistants. Null for others, and where nobody can join. */
  readonly code: string | null;
  /** How many wait to be let in; none for students. */
  readonly asking: number;
  readonly members: readonly Member[];
  /** The last added first, as many as come at once; `sources` says how many there are. */
  readonly readings: readonly SourceRow[];
}
