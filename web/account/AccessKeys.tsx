import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { v7 } from 'uuid';
import type { AnswerOf, Api, BodyOf } from '@avrelle/core/api';
import { TOKEN_DAYS, tokenSchema } from '@avrelle/core/wire';
import { tokensQuery } from '../data/queries';
import { useWrite } from '../data/use-write';
import { DataTable, type PlainColumn } from '../ui/DataTable';
import { FormAlert, FormChoice, FormField, useSchemaForm } from '../ui/Form';
import { Secret } from './Secret';
import { State } from '../ui/State';
import { day, when } from '../ui/when';

type Row = AnswerOf<Api['GET /api/account/tokens']>[number];

const LENGTHS: Readonly<Record<(typeof TOKEN_DAYS)[number], string>> = {
  7: 'in a week',
  30: 'in 30 days',
  90: 'in 90 days',
  365: 'in a year',
};

/** Keys for other programs: those there are, and a new one, which is shown once. */
export function AccessKeys() {
  const tokens = useQuery(tokensQuery);
  const [made, setMade] = useState<string>();
  const revoke = useWrite('DELETE /api/account/tokens/:id', 'tokens');
  const columns: PlainColumn<Row>[] = [
    { id: 'name', header: 'For', cell: ({ row }) => row.original.name },
    { id: 'scope', header: 'May', cell: ({ row }) => (row.original.scope === 'read' ? 'read' : 'read and write') },
    { id: 'ends', header: 'Ends', cell: ({ row }) => day(row.original.expiresAt) },
    { id: 'used', header: 'Last used', cell: ({ row }) => (row.original.usedAt ? when(row.original.usedAt) : 'never') },
    {
      id: 'take',
      header: () => <span className="sr-only">What can be done</span>,
      cell: ({ row }) => (
        <button className="act" onClick={() => revoke.run({ params: { id: row.original.id } })}>
          Delete<span className="sr-only"> the key for {row.original.name}</span>
        </button>
      ),
    },
  ];
  return (
    <State of={tokens}>
      {tokens.data && tokens.data.length > 0 && (
        <div className="mb-5 overflow-x-auto">
          <DataTable
            label="Access keys"
            columns={columns}
            rows={tokens.data}
            idOf={({ id }) => id}
            numbers={['take']}
          />
        </div>
      )}
      <NewKey onMade={setMade} />
      {made && (
        <Secret title="Your new access key" value={made} onClose={() => setMade(undefined)}>
          Give it to the program now: it is not shown again. Whoever has it can do what it says.
        </Secret>
      )}
    </State>
  );
}

function NewKey({ onMade }: { readonly onMade: (token: string) => void }) {
  const make = useWrite('PUT /api/account/tokens/:id', 'tokens');
  const { form, submit, busy } = useSchemaForm<BodyOf<Api['PUT /api/account/tokens/:id']>>(
    tokenSchema,
    { name: '', scope: 'read', days: 30 },
    async (body) => {
      const { token } = await make.send({ params: { id: v7() }, body });
      form.reset();
      onMade(token);
    },
  );
  return (
    <form noValidate onSubmit={submit} className="grid gap-3">
      <div className="grid grid-cols-[1fr_auto_auto] items-start gap-4 max-[760px]:grid-cols-1">
        <FormField form={form} name="name" label="New key for" hint="the name of the program" />
        <FormChoice form={form} name="scope" label="It may">
          <option value="read">read</option>
          <option value="write">read and write</option>
        </FormChoice>
        <FormChoice form={form} name="days" label="It ends">
          {TOKEN_DAYS.map((days) => (
            <option key={days} value={days}>
              {LENGTHS[days]}
            </option>
          ))}
        </FormChoice>
      </div>
      <FormAlert form={form} />
      <button className="press justify-self-start" disabled={busy}>
        Make a key
      </button>
    </form>
  );
}
