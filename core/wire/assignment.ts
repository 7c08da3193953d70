import { array, boolean, number, object, string, type InferType } from 'yup';
import type { Expectation } from '../class/assignment';
import type { Spans } from '../reading/spans';
import type { KindCode } from '../legend/legend';
import type { NamedGroup } from '../audience/audience';
import { MOST_GROUPS } from './groups';
import { idSchema, type ClassId, type PersonId } from './ids';
import { kindCodeSchema } from './legend';
import type { ClassLabel, SourceRow } from './source';

/** From when on members of a class see what the others wrote on a reading. */
export const OTHERS_SEEN = ['at_once', 'after_own', 'after_due', 'after_release'] as const;
export type OthersSeen = (typeof OTHERS_SEEN)[number];

const MOST_EXPECTED = 50;
const MOST_CLASSES = 20;
const amount = () =>
  number()
    .typeError('Write a number.')
    .integer('Write a whole number.')
    .max(MOST_EXPECTED, `At most ${MOST_EXPECTED} can be asked for.`);
/** RFC 3339 in UTC, to the millisecond, so that instants sort as text. */
export const instant = () =>
  string()
    .nullable()
    .test('instant', 'This is no date and time.', (text) => !text || isInstant(text));
const isInstant = (text: string): boolean => {
  const at = new Date(text);
  return !Number.isNaN(at.getTime()) && at.toISOString() === text;
};

export const assignmentPutSchema = object({
  /** The version that was seen; absent for a new one. */
  version: number().integer().min(1),
  instructions: string().trim().max(20_000, 'Instructions may have 20,000 characters.').default(''),
  marks: array(
    object({
      kind: kindCodeSchema().nullable().defined(),
      count: amount().min(1, 'Ask for one mark at least.').required(),
    })
      .noUnknown()
      .required(),
  )
    .max(10)
    .default([])
    .test(
      'once',
      'Each kind stands there once.',
      (marks) => new Set(marks?.map((m) => m.kind)).size === (marks ?? []).length,
    ),
  answers: amount().min(0, 'Ask for none or more.').default(0),
  /** Whether the questions that are pinned to it are to be answered. */
  questions: boolean().default(false),
  opensAt: instant().default(null),
  dueAt: instant()
    .default(null)
    .test(
      'order',
      'It is due before it opens. Choose a later time for it to be due, or let it open earlier.',
      (dueAt, { parent }) => {
        const { opensAt } = parent as { opensAt?: string | null };
        return !dueAt || !opensAt || opensAt < dueAt;
      },
    ),
  othersSeen: string()
    .oneOf(OTHERS_SEEN)
    .default('at_once')
    .test(
      'due',
      'Choose when it is due: after that they see each other.',
      (seen, { parent }) => seen !== 'after_due' || Boolean((parent as { dueAt?: string | null }).dueAt),
    ),
  /** Whether students may write for the class. */
  comments: boolean().default(true),
  /** Whether a recording is heard in order: students go ahead only to where they have heard it. */
  inOrder: boolean().default(false),
  /** For which groups of the class; none: for all of it. */
  groupIds: array(idSchema().required()).max(MOST_GROUPS).default([]),
  /** Whether the class is told, and what has changed is no longer told as such. */
  publish: boolean().default(true),
  /** Whether it is counted anew who has looked at it. */
  lookAgain: boolean().default(false),
  /** Further classes it is set for in the same words, each as a whole. */
  alsoIn: array(idSchema().required()).max(MOST_CLASSES).default([]),
  /** Whether these classes, and those it is read together with already, see what is written for each other. */
  together: boolean().default(false),
}).noUnknown();
export type AssignmentPut = InferType<typeof assignmentPutSchema>;
/** What is set, as it is stored. */
export type AssignmentFields = Omit<AssignmentPut, 'version' | 'publish' | 'lookAgain' | 'alsoIn' | 'together'>;

/** `number` is the one that was seen. */
export const publishSchema = object({
  number: number().integer().min(1).required(),
  lookAgain: boolean().default(false),
}).noUnknown();
export type PublishAgain = InferType<typeof publishSchema>;

export const shownSchema = object({ shown: boolean().required() }).noUnknown();
/** Null takes the extension back. */
export const extensionSchema = object({ dueAt: instant().defined() }).noUnknown();

/** What is expected, each kind with its name. */
export interface NamedExpectation extends Expectation {
  readonly marks: readonly { readonly kind: KindCode | null; readonly name: string; readonly count: number }[];
}

/** What a reading was when it was published, against what it is. */
export interface Published {
  /** How often it was. */
  readonly number: number;
  readonly at: string;
  /** Since when it is counted who has looked at it; null where all of it counts. */
  readonly lookedSince: string | null;
  readonly changed: {
    readonly instructions: boolean;
    /** What is asked for, or until when. */
    readonly asked: boolean;
    /** There is a newer version of the source. */
    readonly text: boolean;
    /** Marks and notes of its teachers that are new or changed, of those that one sees. */
    readonly notes: number;
  };
}

/** A reading that is set for a class, as one of its members sees it. */
export interface Assignment {
  readonly class: ClassLabel;
  readonly source: SourceRow;
  /** Markdown. */
  readonly instructions: string;
  readonly expected: NamedExpectation;
  readonly opensAt: string | null;
  /** For the class. */
  readonly dueAt: string | null;
  /** For me: later than the class's where I was given more time. */
  readonly myDueAt: string | null;
  readonly isOpen: boolean;
  readonly othersSeen: OthersSeen;
  /** Whether I see what others wrote. */
  readonly seesOthers: boolean;
  /** After the due date or its release: since when all see all. */
  readonly shownAt: string | null;
  readonly comments: boolean;
  /** Whether the questions that are pinned to it are to be answered. */
  readonly questions: boolean;
  /** Whether a recording is heard in order. */
  readonly inOrder: boolean;
  /** The other classes that see what is written for this one, and the other way round. */
  readonly together: readonly ClassLabel[];
  /** For which groups of the class; none: for all of it. */
  readonly groups: readonly NamedGroup[];
  readonly version: number;
  readonly published: Published;
  /** What I have not done yet; null for who teaches. */
  readonly missing: NamedExpectation | null;
  /** Of its students, for who teaches; null for students. */
  readonly progress: AssignmentProgress | null;
}

export interface AssignmentProgress {
  readonly students: number;
  readonly opened: number;
  /** Who did something of it. */
  readonly begun: number;
  /** Who did all of it. */
  readonly done: number;
  readonly marks: number;
  readonly answers: number;
}

/** One student, on a reading that is set. */
export interface StudentProgress {
  readonly id: PersonId;
  readonly name: string;
  readonly opened: boolean;
  /** 0 to 1. */
  readonly readShare: number;
  /** What they read of it, in its stream. */
  readonly spans: Spans;
  /** How much of a recording they played, in seconds. */
  readonly heardSeconds: number;
  readonly marks: number;
  readonly answers: number;
  readonly questions: number;
  readonly missing: NamedExpectation;
  /** Where they were given more time. */
  readonly extendedTo: string | null;
}

export interface AssignmentDetail extends Assignment {
  readonly students: readonly StudentProgress[];
}

/** How far one student is with what is due in a class. */
export interface WeekProgress {
  readonly id: PersonId;
  readonly name: string;
  readonly done: number;
  readonly of: number;
  readonly opened: number;
  /** Of what is due, 0 to 1. */
  readonly readShare: number;
}

export interface ClassAssignments {
  readonly assignments: readonly Assignment[];
  /** Each student, with what was due within a week before and is due within a week from now; to students only themselves. */
  readonly week: readonly WeekProgress[];
}

/** By which a reading that is set is told apart. */
export const assignmentKey = (of: {
  readonly class: { readonly id: ClassId };
  readonly source: { readonly id: string };
}): string => `${of.class.id} ${of.source.id}`;
