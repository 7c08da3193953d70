import { string } from 'yup';
import {
  OTHERS_SEEN,
  type Assignment,
  type AssignmentDetail,
  type ClassAssignments,
  type NamedExpectation,
} from '../../wire';
import { amount, fields, flag, id, list, pair, shape, text } from '../shape';
import { classLabel, namedGroup, sourceRow } from './sources';

const expectation = shape<NamedExpectation>()(
  fields({
    marks: list(fields({ kind: string().nullable().defined(), name: text(), count: amount() })),
    answers: amount(),
    questions: amount(),
  }),
);
const maybeTime = () => string().nullable().defined();
const row = {
  class: classLabel,
  source: sourceRow,
  instructions: text(),
  expected: expectation,
  opensAt: maybeTime(),
  dueAt: maybeTime(),
  myDueAt: maybeTime(),
  isOpen: flag(),
  othersSeen: string().oneOf(OTHERS_SEEN).required(),
  seesOthers: flag(),
  shownAt: maybeTime(),
  comments: flag(),
  questions: flag(),
  inOrder: flag(),
  together: list(classLabel),
  groups: list(namedGroup),
  version: amount(),
  published: fields({
    number: amount(),
    at: text(),
    lookedSince: maybeTime(),
    changed: fields({ instructions: flag(), asked: flag(), text: flag(), notes: amount() }),
  }),
  missing: expectation.nullable().defined(),
  progress: fields({
    students: amount(),
    opened: amount(),
    begun: amount(),
    done: amount(),
    marks: amount(),
    answers: amount(),
  })
    .nullable()
    .defined(),
};
export const assignment = shape<Assignment>()(fields(row));
export const assignmentDetail = shape<AssignmentDetail>()(
  fields({
    ...row,
    students: list(
      fields({
        id: id(),
        name: text(),
        opened: flag(),
        readShare: amount(),
        spans: list(pair()),
        heardSeconds: amount(),
        marks: amount(),
        answers: amount(),
        questions: amount(),
        missing: expectation,
        extendedTo: maybeTime(),
      }),
    ),
  }),
);
export const classAssignments = shape<ClassAssignments>()(
  fields({
    assignments: list(assignment),
    week: list(fields({ id: id(), name: text(), done: amount(), of: amount(), opened: amount(), readShare: amount() })),
  }),
);
