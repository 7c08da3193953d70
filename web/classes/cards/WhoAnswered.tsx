import type { ClassCard, ClassId, NamedAnswers } from '@avrelle/core/wire';
import { useNamedAnswers } from '../../data/review-queries';
import { RATING_WORDS } from '../../review/AnswerBar';
import { DataTable, type PlainColumn } from '../../ui/DataTable';
import { DialogFrame } from '../../ui/DialogFrame';
import { State } from '../../ui/State';
import { day, when } from '../../ui/when';

interface Props {
  readonly card: ClassCard;
  readonly classId: ClassId;
  onClose(): void;
}

/** How each student answered a card of which that is seen. */
export function WhoAnswered({ card, classId, onClose }: Props) {
  const found = useNamedAnswers(classId, card.id);
  return (
    <DialogFrame title="Who answered" width={620} onClose={onClose}>
      <p className="mb-3 text-[14px] text-soft">
        <span dir="auto">“{card.words}”</span>, since {day(card.namedFrom!)}
      </p>
      <State of={found}>
        {found.data?.length === 0 ? (
          <p className="text-soft">Nobody has answered it since.</p>
        ) : (
          <div className="relative max-h-[50vh] overflow-auto" role="region" aria-label="Answers" tabIndex={0}>
            <DataTable
              label="Answers"
              columns={COLUMNS}
              rows={found.data ?? []}
              idOf={({ id }) => id}
              numbers={['answers', 'forgot']}
            />
          </div>
        )}
      </State>
    </DialogFrame>
  );
}

const COLUMNS: readonly PlainColumn<NamedAnswers>[] = [
  { id: 'name', header: 'Student', cell: ({ row }) => row.original.name },
  {
    id: 'last',
    header: 'Last',
    cell: ({
      row: {
        original: { last, at },
      },
    }) => `${RATING_WORDS[last].words}, ${when(at)}`,
  },
  { id: 'answers', header: 'Answers', cell: ({ row }) => row.original.answers },
  { id: 'forgot', header: 'Forgotten', cell: ({ row }) => row.original.forgot },
];
