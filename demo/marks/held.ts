import { mark, type DemoMark } from './mark';

/** What Dr Aldous has written for next week, and his students do not see yet. */
export const HELD: readonly DemoMark[] = [
  mark(
    'report',
    'aldous',
    'question',
    'B',
    1,
    'The loss is small, 1.3 mm in the mean, but a marsh that loses height while the tide gains is a marsh for which a date can be given.',
    'Ask them for the date before they turn the page. Then: what would have to be true for it to be wrong?',
    'week5',
  ),
  mark(
    'report',
    'aldous',
    'doubt',
    'B',
    1,
    'The readings are given in the table with the others, but should not be put into any mean, and have not been put into ours.',
    'Was that decided before or after they had seen the numbers? Nobody asks this in the first round.',
    'method',
  ),
  mark(
    'report',
    'aldous',
    'evidence',
    'B',
    1,
    'its upper limit on line B now lies eleven metres nearer to the wall than in 1994',
    'The plants and the pegs say the same, and nobody measured both with the same instrument.',
  ),
  mark(
    'report',
    'aldous',
    'claim',
    'AB',
    1,
    'Only the third is a remedy that renews itself.',
    'For both courses: two sentences before this one stand three remedies. Which word decides between them?',
    'week5',
  ),
].map((one) => ({ ...one, held: true as const }));

/** What a student asks the teachers alone. */
export const FOR_TEACHERS: DemoMark = {
  ...mark(
    'report',
    'wim',
    'question',
    'B',
    1,
    'which is the error of the method',
    'I do not know what levelling is and did not want to ask in class. Is there something I could read?',
  ),
  teachersOnly: true,
};

/** What a student writes for her group alone. */
export const FOR_A_GROUP: readonly DemoMark[] = [
  mark(
    'report',
    'ines',
    'question',
    'B',
    2,
    'its upper limit on line B now lies eleven metres nearer to the wall than in 1994',
    'Shall our group take line B for the talk? Then I draw the limit of 1994 into the map.',
  ),
].map((one) => ({ ...one, inOwnGroup: true as const }));
