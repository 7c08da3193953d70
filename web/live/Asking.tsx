import type { ClassDetail, Live } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { useQuestionsOn } from '../data/question-queries';
import { slotOf } from '../data/unfinished';
import QuestionBox from '../questions/QuestionBox';

interface Props {
  readonly of: ClassDetail;
  readonly live: Live;
}

/** What is asked now: for who follows to answer, for who shows with the answers as they come. */
export function Asking({ of: c, live: { place, questionId } }: Props) {
  const me = useMe();
  const question = useQuestionsOn(place.sourceId).data?.find(({ id }) => id === questionId);
  if (!question) return null;
  return (
    <section aria-label="Asked now">
      <h2 className="text-[16px]">Asked now</h2>
      <p dir="auto" className="mt-1 font-read text-[16.5px] leading-[24px]">
        {question.words}
      </p>
      <QuestionBox
        question={question}
        classes={[c]}
        slot={slotOf(me.id, place.sourceId, { type: 'response', annotationId: question.id })}
      />
    </section>
  );
}
