export { agreement } from './agreement';
export type { Value, Values } from './agreement';
export { leftOf, leftWords, wordsFor } from './assignment-words';
export { contributionOf, expectationWords, gaveOwn, hasDone, isDone, missing, NOTHING_DONE } from './assignment';
export type { Contribution, Expectation, ExpectedMarks } from './assignment';
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
export type { AgainstTeacher, ClassAgreement, Passage, ReadersMark, Span } from './coverage';
export { ANSWERS_SHOWN, QUESTION_FORMS, areShown, countsOf, isRight } from './question';
export type { AnswerKey, AnswersShown, Counts, Given, QuestionForm, Showing } from './question';
export { rosterClasses, rosterOf } from './roster';
export type { LeftOut, LeftOutWhy, Listed, Roster, RosterClass, Rows } from './roster';
export { dealt } from './groups';
