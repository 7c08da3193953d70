import { useState } from 'react';
import type { AnswerOf, Api } from '@avrelle/core/api';
import type { ClassDetail, LeftOutRow, RosterPreview, RosterRow, RosterState } from '@avrelle/core/wire';
import { wordsOf } from '../../data/api';
import { useWrite } from '../../data/use-write';
import { Alert } from '../../ui/Alert';
import { DataTable, type PlainColumn } from '../../ui/DataTable';
import { Tick } from '../../ui/Tick';
import { count } from '../../ui/when';

const STATES: Readonly<Record<RosterState, string>> = {
  member: 'in the class already',
  known: 'has an account, will be added',
  invited: 'has a link already',
  new: 'no account yet, gets a link',
};
const WHY: Readonly<Record<LeftOutRow['why'], string>> = {
  no_address: 'no e-mail address',
  bad_address: 'this is no e-mail address',
  no_name: 'no name',
  twice: 'the same address as somebody above',
  ended: 'not at the school, or not in the class any more',
  no_part: 'neither student, assistant nor teacher',
};

interface Props {
  readonly of: ClassDetail;
  readonly found: RosterPreview;
  onAdded(answer: AnswerOf<Api['POST /api/classes/:id/roster']>): void;
  onClose(): void;
}

/** Who stands on a list and what they are here, to be chosen from, and who is left out and why. */
export function ListPreview({ of: c, found, onAdded, onClose }: Props) {
  const [at, setAt] = useState(0);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [wrong, setWrong] = useState('');
  const add = useWrite('POST /api/classes/:id/roster', 'classes');
  const { people, leftOut } = found.classes[at]!;
  const chosen = people.filter(({ email, state }) => state !== 'member' && !left.has(email));
  const send = (): void => {
    setWrong('');
    const body = { people: chosen.map(({ name, email, role }) => ({ name, email, role })) };
    add.send({ params: { id: c.id }, body }).then(onAdded, (error: unknown) => setWrong(wordsOf(error)));
  };
  const tick = ({ email }: RosterRow): void =>
    setLeft(left.has(email) ? new Set([...left].filter((one) => one !== email)) : new Set([...left, email]));
  return (
    <div className="mt-3">
      {found.classes.length > 1 && <WhichClass found={found} at={at} onChoose={setAt} />}
      {people.length === 0 && <p className="text-soft">Nobody of it can be added.</p>}
      {people.length > 0 && (
        <div className="relative overflow-x-auto">
          <DataTable label="On the list" columns={columnsOf(left, tick)} rows={people} idOf={({ email }) => email} />
        </div>
      )}
      {leftOut.length > 0 && <LeftOut rows={leftOut} />}
      <div className="mt-3">
        <Alert>{wrong}</Alert>
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-5">
        <button className="press" disabled={chosen.length === 0 || add.isPending} onClick={send}>
          Add {count(chosen.length, 'person', 'people')}
        </button>
        <button className="act" onClick={onClose}>
          Cancel
        </button>
      </div>
    </div>
  );
}

interface WhichProps {
  readonly found: RosterPreview;
  readonly at: number;
  onChoose(at: number): void;
}

/** Which class of an archive it is. */
const WhichClass = ({ found, at, onChoose }: WhichProps) => (
  <label className="mb-3 grid w-fit gap-1 text-[14px] text-soft">
    Class on the list
    <select className="field text-[15px]" value={at} onChange={({ target }) => onChoose(Number(target.value))}>
      {found.classes.map(({ key, title, people }, n) => (
        <option key={key} value={n}>
          {title} ({count(people.length, 'person', 'people')})
        </option>
      ))}
    </select>
  </label>
);

const columnsOf = (left: ReadonlySet<string>, tick: (row: RosterRow) => void): PlainColumn<RosterRow>[] => [
  {
    id: 'name',
    header: 'Name',
    cell: ({ row: { original } }) => (
      <span className="flex items-center gap-2">
        {original.state === 'member' ? (
          <span className="inline-block w-[13px]" />
        ) : (
          <Tick label={`Add ${original.name}`} checked={!left.has(original.email)} onChange={() => tick(original)} />
        )}
        {original.name}
      </span>
    ),
  },
  { id: 'email', header: 'Address', cell: ({ row }) => <span className="break-all">{row.original.email}</span> },
  { id: 'role', header: 'As', cell: ({ row }) => row.original.role },
  { id: 'state', header: 'Here', cell: ({ row }) => <span className="text-soft">{STATES[row.original.state]}</span> },
];

function LeftOut({ rows }: { readonly rows: readonly LeftOutRow[] }) {
  return (
    <div role="note" aria-label="Left out" className="mt-4 border-l-[3px] border-l-brick pl-3 text-[14px]">
      <p className="font-semibold">{count(rows.length, 'line is', 'lines are')} left out</p>
      <ul className="max-h-[200px] overflow-y-auto text-soft">
        {rows.map(({ line, words, why }) => (
          <li key={line}>
            line {line}: {words && <span className="text-ink">{words}</span>} {words && '· '}
            {WHY[why]}
          </li>
        ))}
      </ul>
    </div>
  );
}
