import { Suspense, useState } from 'react';
import type { Annotation, Question } from '@avrelle/core/wire';
import { lazily } from '../../../ui/lazily';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

const QuestionBox = lazily(() => import('../../../questions/QuestionBox'));
const AskDialog = lazily(() => import('../../../questions/AskDialog'));

interface Props {
  readonly question: Question | undefined;
  readonly open: boolean;
}

/** What a note asks the class: in one line, or, open, with the answers. */
export function Asked({ question, open }: Props) {
  if (!question) return null;
  return open ? <QuestionHere question={question} /> : <QuestionLine question={question} />;
}

function QuestionHere({ question }: { readonly question: Question }) {
  const { classes } = useSession();
  const { noteActions } = useTools();
  return (
    <Suspense>
      <QuestionBox
        question={question}
        classes={classes}
        slot={noteActions.slot({ type: 'response', annotationId: question.id })}
      />
    </Suspense>
  );
}

/** How it stands with it, of a note that is folded. */
function QuestionLine({ question }: { readonly question: Question }) {
  const { isForMe, isOpen, response } = question;
  const isLeft = isForMe && isOpen && response === null;
  return (
    <p className={`text-[13px] ${isLeft ? 'text-brick' : 'text-tide'}`}>
      {isForMe ? ownWords(question) : countWords(question)}
    </p>
  );
}

function ownWords({ isOpen, response }: Question): string {
  if (response) return 'You answered';
  return isOpen ? 'Asks for your answer' : 'Answers are shown';
}

function countWords({ classes }: Question): string {
  const results = classes.flatMap((one) => one.results ?? []);
  const sum = (of: 'answered' | 'students'): number => results.reduce((all, one) => all + one[of], 0);
  return `${sum('answered')} of ${sum('students')} answered`;
}

/** For the author of a note for classes they all teach: asks them. */
export function AskTheClass({ annotation }: { readonly annotation: Annotation }) {
  const { classes } = useSession();
  const [asking, setAsking] = useState(false);
  const taught = new Set(classes.filter((c) => c.role !== 'student' && c.archivedAt === null).map((c) => c.id));
  const { classIds, teachersOnly } = annotation;
  if (classIds.length === 0 || teachersOnly || !classIds.every((id) => taught.has(id))) return null;
  return (
    <>
      <button className="act" onClick={() => setAsking(true)}>
        Ask the class…
      </button>
      {asking && (
        <Suspense>
          <AskDialog id={annotation.id} words={annotation.note} onClose={() => setAsking(false)} />
        </Suspense>
      )}
    </>
  );
}
