import type { ClassId, Question, StudentResponse } from '@avrelle/core/wire';
import { useResponses } from '../../data/question-queries';
import { answerWords } from '../../questions/words';
import { DataTable, type PlainColumn } from '../../ui/DataTable';
import { State } from '../../ui/State';
import { when } from '../../ui/when';

interface Props {
  readonly classId: ClassId;
  readonly question: Question;
}

/** For who teaches: what each student answered, and who has not. */
export function WhoAnswered({ classId, question }: Props) {
  const found = useResponses(classId, question.id);
  return (
    <section aria-label="Who answered" className="mt-7">
      <h3 className="mb-1 text-[17px]">Who answered</h3>
      <State of={found}>
        {found.data?.length === 0 ? (
          <p className="text-soft">The question is shown to no student yet.</p>
        ) : (
          <div className="relative overflow-x-auto">
            <DataTable
              label="Who answered"
              columns={columnsOf(question)}
              rows={found.data ?? []}
              idOf={(student) => student.id}
            />
          </div>
        )}
      </State>
    </section>
  );
}

function rightWords(isRight: boolean | null | undefined): string {
  if (isRight == null) return '';
  return isRight ? '✓ right' : 'not right';
}

const columnsOf = (question: Question): readonly PlainColumn<StudentResponse>[] => [
  {
    id: 'name',
    header: 'Name',
    cell: ({ row: { original } }) => (
      <span className={`whitespace-nowrap ${original.response ? '' : 'text-brick'}`}>{original.name}</span>
    ),
  },
  {
    id: 'answer',
    header: 'Answer',
    cell: ({ row: { original } }) =>
      original.response ? (
        <span dir="auto" className="whitespace-pre-line">
          {answerWords(question, original.response)}
        </span>
      ) : (
        'no answer yet'
      ),
  },
  {
    id: 'right',
    header: '',
    cell: ({ row }) => rightWords(row.original.response?.isRight),
  },
  {
    id: 'at',
    header: 'When',
    cell: ({ row: { original } }) =>
      original.response && (
        <span className="whitespace-nowrap">
          {when(original.response.at)}
          {original.late && <span className="text-brick"> late</span>}
        </span>
      ),
  },
];
