import { useState } from 'react';
import type { AskedClass, ClassRow, Question } from '@avrelle/core/wire';
import type { Slot } from '../data/unfinished';
import { useWrite } from '../data/use-write';
import NoteText from '../note/NoteText';
import { Tint } from '../ui/Tint';
import { AnswerForm } from './AnswerForm';
import AskDialog from './AskDialog';
import { Results } from './Results';
import { answerWords, numberWords, shownWords } from './words';

interface Props {
  readonly question: Question;
  readonly classes: readonly Pick<ClassRow, 'id' | 'name' | 'tint' | 'role'>[];
  /** Where words of an answer that was not sent are kept. */
  readonly slot: Slot;
}

/** Below a note that asks the class: one's own answer, and, at its time, the model answer and how all answered. */
export default function QuestionBox({ question, classes, slot }: Props) {
  const [changing, setChanging] = useState(false);
  const asked = question.classes.flatMap((one) => {
    const known = classes.find(({ id }) => id === one.id);
    return known ? [{ ...one, known }] : [];
  });
  return (
    <section aria-label="Question to the class" className="mt-2 grid gap-2.5 border-t border-rule pt-2">
      {question.isForMe && <Own question={question} slot={slot} />}
      {question.key && <Model question={question} />}
      {asked.map(({ known, ...one }) => (
        <InClass key={one.id} question={question} asked={one} known={known} isNamed={asked.length > 1} />
      ))}
      {question.isMine && (
        <p className="text-[13px]">
          <button className="act" onClick={() => setChanging(true)}>
            Change the question…
          </button>
        </p>
      )}
      {changing && (
        <AskDialog id={question.id} words={question.words} question={question} onClose={() => setChanging(false)} />
      )}
    </section>
  );
}

/** What I answered, or the form to do it. */
function Own({ question, slot }: Pick<Props, 'question' | 'slot'>) {
  const [editing, setEditing] = useState(false);
  const { response, isOpen } = question;
  if (isOpen && (editing || response === null))
    return (
      <AnswerForm
        question={question}
        slot={slot}
        onDone={() => setEditing(false)}
        onCancel={response ? () => setEditing(false) : undefined}
      />
    );
  if (response === null)
    return <p className="text-[13.5px] text-soft">You gave no answer before answers were shown.</p>;
  return (
    <div className="text-[14.5px] leading-5">
      <p className="text-[13px] text-soft">
        Your answer{response.isRight !== null && (response.isRight ? ': right' : ': not right')}
      </p>
      <p dir="auto" className="whitespace-pre-line">
        {answerWords(question, response)}
      </p>
      {isOpen && (
        <button className="act text-[13px]" onClick={() => setEditing(true)}>
          Change my answer
        </button>
      )}
    </div>
  );
}

/** What is right, and the model answer. */
function Model({ question: { form, key, unit } }: Pick<Props, 'question'>) {
  if (!key) return null;
  const right = form === 'number' && key.number !== null ? numberWords(key.number, unit, key.tolerance) : '';
  if (!right && !key.model) return null;
  return (
    <div className="border-l-2 border-[var(--verdigris-line)] pl-2.5 text-[14.5px] leading-5">
      <p className="text-[13px] text-soft">{key.model ? 'Model answer' : 'Right'}</p>
      {right && <p className="font-semibold">{right}</p>}
      {key.model && <NoteText>{key.model}</NoteText>}
    </div>
  );
}

interface InClassProps {
  readonly question: Question;
  readonly asked: AskedClass;
  readonly known: Props['classes'][number];
  readonly isNamed: boolean;
}

function InClass({ question, asked, known, isNamed }: InClassProps) {
  const teaches = known.role !== 'student';
  if (!asked.results && !teaches) return null;
  return (
    <div>
      {isNamed && (
        <p className="mb-0.5 text-[13.5px]">
          <Tint tint={known.tint}>{known.name}</Tint>
        </p>
      )}
      {asked.results && <Results question={question} results={asked.results} />}
      {teaches && <Showing question={question} asked={asked} />}
    </div>
  );
}

/** For who teaches: whether the class sees the answers, and to show them. */
function Showing({ question, asked }: Pick<InClassProps, 'question' | 'asked'>) {
  const show = useWrite('PUT /api/classes/:id/questions/:annotationId/shown', 'questions');
  const isShown = asked.shownAt !== null;
  return (
    <p className="mt-1.5 text-[13px] text-soft">
      {shownWords(question, asked)}{' '}
      <button
        className="act"
        disabled={show.isPending}
        onClick={() => show.run({ params: { id: asked.id, annotationId: question.id }, body: { shown: !isShown } })}
      >
        {isShown ? 'Do not show them' : 'Show the answers'}
      </button>
    </p>
  );
}
