import { boolean, number, string } from 'yup';
import { ANSWERS_SHOWN, QUESTION_FORMS } from '../class';
import {
  questionPutSchema,
  responsePutSchema,
  shownSchema,
  type AskedClass,
  type Question,
  type QuestionResponse,
  type StudentResponse,
} from '../wire';
import { endpoint } from './endpoint';
import { asAssistant, asMember } from './permission';
import { amount, fields, flag, id, list, shape, text, time } from './shape';
import { classNote } from './shapes/marks';

const maybe = () => string().nullable().defined();
const maybeNumber = () => number().nullable().defined();
const response = shape<QuestionResponse | null>()(
  fields({
    choices: list(amount()),
    number: maybeNumber(),
    words: text(),
    at: time(),
    isRight: boolean().nullable().defined(),
  })
    .nullable()
    .defined(),
);
const results = fields({
  students: amount(),
  answered: amount(),
  right: maybeNumber(),
  byChoice: list(amount()),
  numbers: list(fields({ value: amount(), count: amount() })),
  words: list(text()),
})
  .nullable()
  .defined();
const askedClass = shape<AskedClass>()(fields({ id: id(), shownAt: maybe(), dueAt: maybe(), results }));
const question = shape<Question>()(
  fields({
    ...classNote,
    form: string().oneOf(QUESTION_FORMS).required(),
    choices: list(text()),
    unit: text(),
    answersShown: string().oneOf(ANSWERS_SHOWN).required(),
    version: amount(),
    isMine: flag(),
    isForMe: flag(),
    isOpen: flag(),
    response,
    key: fields({ right: list(amount()), number: maybeNumber(), tolerance: amount(), model: text() })
      .nullable()
      .defined(),
    classes: list(askedClass),
  }),
);

/** Those on a source that I see, in the order of the text. */
export const listQuestionsOn = endpoint('GET', '/api/sources/:id/questions', {
  may: { thing: 'source', as: 'reader' },
  answer: list(question),
});
/** Those of a class that I see, reading by reading. */
export const listQuestions = endpoint('GET', '/api/classes/:id/questions', { may: asMember, answer: list(question) });
/** Asks, by a note of one's own, every student it is for; or changes what is asked. */
export const putQuestion = endpoint('PUT', '/api/annotations/:id/question', {
  body: questionPutSchema,
  answer: question,
});
/** The note stays, and so does what was answered: asked again, it is there. */
export const withdrawQuestion = endpoint('DELETE', '/api/annotations/:id/question');
/** My answer; the last one counts, until the answers are shown. */
export const putResponse = endpoint('PUT', '/api/annotations/:id/response', {
  body: responsePutSchema,
  answer: question,
});
/** Shows a class the model answer and how all answered, whatever was said of when; or no longer. */
export const showAnswers = endpoint('PUT', '/api/classes/:id/questions/:annotationId/shown', {
  may: asAssistant('show the answers'),
  body: shownSchema,
  answer: question,
});
/** One line for each student and question. */
export const exportResponses = endpoint('GET', '/api/classes/:id/answers.csv', {
  may: asAssistant('see who answered what'),
  gives: ['text/csv'],
});
const studentResponse = shape<StudentResponse>()(fields({ id: id(), name: text(), response, late: flag() }));
/** Every student who is asked, by name. */
export const listResponses = endpoint('GET', '/api/classes/:id/questions/:annotationId/responses', {
  may: asAssistant('see who answered what'),
  answer: list(studentResponse),
});
