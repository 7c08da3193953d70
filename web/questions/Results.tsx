import type { Question, QuestionResults } from '@avrelle/core/wire';
import { isRightNumber, numberWords } from './words';

interface Props {
  readonly question: Question;
  readonly results: QuestionResults;
}

/** How a class answered, counted; what is right and what is one's own are said in words, too. */
export function Results({ question, results }: Props) {
  const { answered, students, right } = results;
  return (
    <div className="grid gap-1.5">
      <p className="text-[13px] text-soft">
        <b className="font-semibold text-ink">
          {answered} of {students}
        </b>{' '}
        answered
        {right !== null && answered > 0 && ` · ${right} right`}
      </p>
      {answered > 0 && <Counted question={question} results={results} />}
    </div>
  );
}

function Counted({ question, results }: Props) {
  const { form, choices, key, response, unit } = question;
  const { byChoice, numbers, words, answered } = results;
  if (form === 'open') return <Words of={words} />;
  const rows =
    form === 'number'
      ? numbers.map(({ value, count }) => ({
          label: numberWords(value, unit),
          count,
          isRight: key !== null && key.number !== null && isRightNumber(key, value),
          isMine: response?.number === value,
        }))
      : choices.map((label, at) => ({
          label,
          count: byChoice[at] ?? 0,
          isRight: key?.right.includes(at) ?? false,
          isMine: response?.choices.includes(at) ?? false,
        }));
  return (
    <ul className="grid gap-1.5">
      {rows.map((row) => (
        <Bar key={row.label} {...row} of={answered} />
      ))}
    </ul>
  );
}

const RIGHT = 'whitespace-nowrap text-[13px] font-semibold text-[var(--verdigris-line)]';

interface BarProps {
  readonly label: string;
  readonly count: number;
  readonly of: number;
  readonly isRight: boolean;
  readonly isMine: boolean;
}

function Bar({ label, count, of, isRight, isMine }: BarProps) {
  return (
    <li>
      <p className="flex items-baseline gap-2 text-[14px] leading-5">
        <span dir="auto">{label}</span>
        {isRight && <b className={RIGHT}>✓ right</b>}
        {isMine && <span className="whitespace-nowrap text-[13px] text-soft">yours</span>}
        <b className="ml-auto font-semibold tabular-nums">{count}</b>
      </p>
      <div aria-hidden="true" className="h-[5px] bg-rule">
        <div
          className={`h-full ${isRight ? 'bg-[var(--verdigris-line)]' : 'bg-[var(--strand)]'}`}
          style={{ width: `${(100 * count) / Math.max(1, of)}%` }}
        />
      </div>
    </li>
  );
}

/** Answers in words, without names. */
const Words = ({ of }: { readonly of: readonly string[] }) => (
  <ul aria-label="Answers" className="max-h-[220px] overflow-y-auto border-y border-rule" tabIndex={0}>
    {of.map((words, n) => (
      <li
        key={n}
        dir="auto"
        className="whitespace-pre-line border-t border-rule py-1.5 text-[14px] leading-5 first:border-t-0"
      >
        {words}
      </li>
    ))}
  </ul>
);
