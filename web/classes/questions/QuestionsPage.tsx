import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import type { ClassDetail, Question } from '@avrelle/core/wire';
import { useMe } from '../../account/me';
import { useClassQuestions } from '../../data/question-queries';
import { slotOf } from '../../data/unfinished';
import { Sign } from '../../ui/Sign';
import { State } from '../../ui/State';
import { useAddressParams } from '../../ui/use-address-params';
import { OfClass, PartHead } from '../ClassPart';
import { WhoAnswered } from './WhoAnswered';

const QuestionBox = lazy(() => import('../../questions/QuestionBox'));

/** All questions of a class in one place, and the one that is open beside them. */
export default function QuestionsPage() {
  return <OfClass>{(c) => <Questions of={c} />}</OfClass>;
}

function Questions({ of: c }: { readonly of: ClassDetail }) {
  const found = useClassQuestions(c.id);
  const [params] = useAddressParams();
  const questions = found.data ?? [];
  const at = params.get('at');
  const open = questions.find(({ id }) => id === at);
  const away = open ? 'max-[900px]:hidden' : '';
  const teaches = c.role !== 'student';
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr]">
      <PartHead of={c} title="Questions">
        {teaches ? 'What the class is asked, and what it answered.' : 'What you are asked, and what you answered.'}
        {teaches && questions.length > 0 && (
          <a className="act ml-4" href={`/api/classes/${c.id}/answers.csv`} download>
            Download all answers (CSV)
          </a>
        )}
      </PartHead>
      <div className="grid min-h-0 grid-cols-[minmax(340px,440px)_1fr] max-[900px]:block max-[900px]:overflow-y-auto">
        <section
          aria-label="Questions"
          className={`min-h-0 overflow-y-auto border-r border-rule bg-paper pb-6 ${away}`}
        >
          <State of={found}>
            {questions.length === 0 && <Nothing teaches={teaches} />}
            {readingsOf(questions).map((some) => (
              <Reading key={some[0]!.source.id} questions={some} at={open?.id} />
            ))}
          </State>
        </section>
        <section aria-label="Question" className="min-h-0 overflow-y-auto bg-sheet">
          {open ? (
            <Open key={open.id} question={open} of={c} />
          ) : (
            questions.length > 0 && (
              <p className="p-8 text-soft max-[900px]:hidden">Choose a question: it opens here, with its answers.</p>
            )
          )}
        </section>
      </div>
    </main>
  );
}

const Nothing = ({ teaches }: { readonly teaches: boolean }) => (
  <p className="max-w-[52ch] p-8 text-soft max-[900px]:px-4">
    Nothing is asked yet.{' '}
    {teaches &&
      'Open a reading, write a note for the class on the words it is about, and there choose “Ask the class”.'}
  </p>
);

/** They come reading by reading. */
const readingsOf = (questions: readonly Question[]): readonly (readonly Question[])[] =>
  [...new Set(questions.map(({ source }) => source.id))].map((id) =>
    questions.filter(({ source }) => source.id === id),
  );

function Reading({ questions, at }: { readonly questions: readonly Question[]; readonly at: string | undefined }) {
  const { title, language } = questions[0]!.source;
  return (
    <section aria-label={title}>
      <h2
        dir="auto"
        lang={language || undefined}
        className="border-b border-rule px-[30px] pb-1.5 pt-4 text-[16px] max-[900px]:px-4"
      >
        {title}
      </h2>
      <ul>
        {questions.map((question) => (
          <Row key={question.id} question={question} isOpen={question.id === at} />
        ))}
      </ul>
    </section>
  );
}

const ROW = 'grid grid-cols-[20px_1fr] gap-x-2 py-2.5 pl-[27px] pr-4 hover:text-tide max-[900px]:pl-[13px]';

function Row({ question, isOpen }: { readonly question: Question; readonly isOpen: boolean }) {
  const { id, words, quote, kind } = question;
  const isLeft = question.isForMe && question.isOpen && question.response === null;
  return (
    <li className={`border-b border-rule border-l-[3px] ${isLeft ? 'border-l-brick' : 'border-l-transparent'}`}>
      <Link
        to={`?at=${id}`}
        replace
        aria-current={isOpen ? 'true' : undefined}
        className={`${ROW} ${isOpen ? 'bg-sheet' : ''}`}
      >
        <Sign kind={kind} className="pt-px" />
        <span className="min-w-0">
          <span dir="auto" className="line-clamp-2 text-[15px] leading-[21px]">
            {words || quote}
          </span>
          <span className="text-[13px] text-soft">{standing(question)}</span>
        </span>
      </Link>
    </li>
  );
}

/** How it stands with a question, in a word or two. */
function standing({ isForMe, isOpen, response, classes }: Question): string {
  if (isForMe && response) return 'answered';
  if (isForMe) return isOpen ? 'to answer' : 'not answered';
  const [results] = classes.flatMap((one) => one.results ?? []);
  return results ? `${results.answered} of ${results.students} answered` : '';
}

function Open({ question, of: c }: { readonly question: Question; readonly of: ClassDetail }) {
  const me = useMe();
  const { id, source, words, quote } = question;
  const here = { ...question, classes: question.classes.filter((one) => one.id === c.id) };
  return (
    <article aria-label={words || quote} className="max-w-[720px] px-8 py-6 max-[900px]:px-4">
      <p className="mb-3 flex flex-wrap items-baseline gap-x-4 text-[13.5px]">
        <Link to="?" replace className="act hidden max-[900px]:inline">
          ‹ All questions
        </Link>
        <Link
          className="act ml-auto"
          to={`/source/${source.id}?at=${id}`}
          state={{ back: { to: `/classes/${c.id}/questions?at=${id}`, words: 'Questions' } }}
        >
          Open in the text
        </Link>
      </p>
      <p dir="auto" lang={source.language || undefined} className="line-clamp-4 font-read text-[16px] italic text-soft">
        {quote}
      </p>
      <h2 dir="auto" className="mt-2 text-[19px] leading-[26px]">
        {words}
      </h2>
      <Suspense>
        <QuestionBox
          question={here}
          classes={[c]}
          slot={slotOf(me.id, source.id, { type: 'response', annotationId: id })}
        />
      </Suspense>
      {c.role !== 'student' && <WhoAnswered classId={c.id} question={here} />}
    </article>
  );
}
