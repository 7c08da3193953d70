import { array, boolean, number, object, string, type InferType } from 'yup';
import { OTHERS_SEEN, type Assignment, type AssignmentPut } from '@avrelle/core/wire';
import { instantOf, typedOf } from '../../ui/local-time';

const NO_SUCH_TIME =
  'There is no such time on that day: when clocks go forward an hour is left out. Choose another time.';
const when = () =>
  string()
    .defined()
    .test('exists', NO_SUCH_TIME, (typed) => typed === '' || instantOf(typed) !== undefined);
const amount = () => number().typeError('Write a number.').integer('Write a whole number.').max(50, 'At most 50.');

/** What is typed where a reading is set: times as they are where one is. */
export const setSchema = object({
  instructions: string().max(20_000, 'Instructions may have 20,000 characters.').defined(),
  marks: array(
    object({
      /** The code of a kind; '' for any. */
      kind: string().defined(),
      count: amount().min(1, 'Ask for one at least.').required('Write a number.'),
    }).required(),
  )
    .required()
    .test('once', 'Each kind stands there once.', (marks) => new Set(marks.map((m) => m.kind)).size === marks.length),
  answers: amount().min(0, 'None, or more.').required('Write a number, or 0.'),
  opens: when(),
  due: when().test(
    'order',
    'It is due before it opens. Choose a later time, or let it open earlier.',
    (due, { parent }) => {
      const { opens } = parent as { opens: string };
      return !due || !opens || opens < due;
    },
  ),
  othersSeen: string()
    .oneOf(OTHERS_SEEN)
    .required()
    .test('due', 'Choose when it is due: after that they see each other.', (seen, { parent }) => {
      const { due } = parent as { due: string };
      return seen !== 'after_due' || due !== '';
    }),
  comments: boolean().required(),
  questions: boolean().required(),
  inOrder: boolean().default(false),
  /** None: for the whole class. */
  groupIds: array(string().required()).required(),
  publish: boolean().default(true),
  lookAgain: boolean().default(false),
  alsoIn: array(string().required()).default([]),
  together: boolean().default(false),
});
export type SetValues = InferType<typeof setSchema>;

const NEW: SetValues = {
  instructions: '',
  marks: [{ kind: '', count: 2 }],
  answers: 0,
  opens: '',
  due: '',
  othersSeen: 'at_once',
  comments: true,
  questions: false,
  inOrder: false,
  groupIds: [],
  publish: true,
  lookAgain: false,
  alsoIn: [],
  together: false,
};

const typed = (instant: string | null): string => (instant ? typedOf(instant) : '');

/** As a form begins: with what is set, or a common beginning. */
export const valuesOf = (set: Assignment | undefined): SetValues =>
  set
    ? {
        instructions: set.instructions,
        marks: set.expected.marks.map(({ kind, count }) => ({ kind: kind ?? '', count })),
        answers: set.expected.answers,
        opens: typed(set.opensAt),
        due: typed(set.dueAt),
        othersSeen: set.othersSeen,
        comments: set.comments,
        questions: set.questions,
        inOrder: set.inOrder,
        groupIds: set.groups.map(({ id }) => id),
        publish: true,
        lookAgain: false,
        alsoIn: [],
        together: set.together.length > 0,
      }
    : NEW;

export const putOf = (values: SetValues, version: number | undefined): AssignmentPut => ({
  ...(version === undefined ? {} : { version }),
  instructions: values.instructions,
  marks: values.marks.map(({ kind, count }) => ({ kind: kind || null, count })),
  answers: values.answers,
  opensAt: values.opens ? instantOf(values.opens)! : null,
  dueAt: values.due ? instantOf(values.due)! : null,
  othersSeen: values.othersSeen,
  comments: values.comments,
  questions: values.questions,
  inOrder: values.inOrder,
  groupIds: values.groupIds,
  publish: values.publish,
  lookAgain: values.publish && values.lookAgain,
  alsoIn: values.alsoIn,
  together: values.together,
});
