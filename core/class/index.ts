export { agreement } from './agreement';
export type { Value, Values } from './agreement';
export {
  contributionOf,
  expectationWords,
  gaveOwn,
  hasDone,
  isDone,
  isRead,
  missing,
  NOTHING_DONE,
  phaseOf,
} from './assignment';
export type { Contribution, Expectation, ExpectedMarks, Times } from './assignment';
export {
  againstTeacher,
  agreementOn,
  densityOf,
  drawing,
  FEWEST_READERS,
  missed,
  passagesOf,
  sentencesOf,
  splitting,
} from './coverage';
export type { ClassAgreement, Passage, ReadersMark, Span } from './coverage';
