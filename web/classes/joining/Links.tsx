import { useState } from 'react';
import { v7 } from 'uuid';
import { LINK_DAYS, linkPutSchema, type ClassDetail, type JoinLink, type LinkPut } from '@avrelle/core/wire';
import { joinAddress } from '../../data/joining-queries';
import { useWrite } from '../../data/use-write';
import { DataTable, type PlainColumn } from '../../ui/DataTable';
import { FormAlert, FormChoice, FormField, useSchemaForm } from '../../ui/Form';
import { useMessages } from '../../ui/Messages';
import { useCopy } from '../../ui/use-copy';
import { count, day } from '../../ui/when';

interface Props {
  readonly of: ClassDetail;
  readonly links: readonly JoinLink[];
}

/** Links that let others in, and a new one. */
export function Links({ of: c, links }: Props) {
  const close = useWrite('DELETE /api/classes/:id/links/:linkId', 'classes');
  const messages = useMessages();
  const copy = useCopy();
  const end = ({ id }: JoinLink): void =>
    close.run({ params: { id: c.id, linkId: id } }, () => messages.tell('Nobody joins by that link any more.'));
  return (
    <section aria-label="Links">
      <h2 className="text-[18px]">Links</h2>
      <p className="mb-3 max-w-[62ch] text-[14px] text-soft">
        Send one by mail, or put it where your class looks. Whoever opens it joins with their account.
      </p>
      {links.length > 0 && (
        <div className="relative mb-4 overflow-x-auto">
          <DataTable
            label="Links to join"
            columns={columnsOf((link) => copy(joinAddress(link.token), 'The link is on the clipboard.'), end)}
            rows={links}
            idOf={({ id }) => id}
            numbers={['used', 'do']}
          />
        </div>
      )}
      <NewLink of={c} onMade={(link) => copy(joinAddress(link.token), 'The link is made, and on the clipboard.')} />
    </section>
  );
}

const columnsOf = (copy: (link: JoinLink) => void, end: (link: JoinLink) => void): PlainColumn<JoinLink>[] => [
  {
    id: 'for',
    header: 'For',
    cell: ({ row: { original } }) => (
      <>
        {original.forWhom ?? 'whoever has it'}
        {original.role !== 'student' && <span className="text-soft"> · {original.role}</span>}
      </>
    ),
  },
  { id: 'ends', header: 'Ends', cell: ({ row }) => (row.original.expiresAt ? endOf(row.original.expiresAt) : 'never') },
  { id: 'used', header: 'Used', cell: ({ row }) => usedOf(row.original) },
  {
    id: 'do',
    header: () => <span className="sr-only">What can be done</span>,
    cell: ({ row: { original } }) => (
      <span className="flex justify-end gap-4 whitespace-nowrap">
        <button className="act" onClick={() => copy(original)}>
          Copy<span className="sr-only"> the link for {original.forWhom ?? 'whoever has it'}</span>
        </button>
        <button className="text-soft hover:text-ink" onClick={() => end(original)}>
          Close<span className="sr-only"> the link for {original.forWhom ?? 'whoever has it'}</span>
        </button>
      </span>
    ),
  },
];

const endOf = (expiresAt: string): string => (Date.parse(expiresAt) <= Date.now() ? 'over' : day(expiresAt));
const usedOf = ({ used, left }: JoinLink): string => (left === null ? `${used}` : `${used} of ${used + left}`);

const LENGTHS: Readonly<Record<(typeof LINK_DAYS)[number], string>> = {
  1: 'in a day',
  7: 'in a week',
  30: 'in 30 days',
  120: 'in 120 days',
};

function NewLink({ of: c, onMade }: { readonly of: ClassDetail; onMade(link: JoinLink): void }) {
  const put = useWrite('PUT /api/classes/:id/links/:linkId', 'classes');
  // Sent again, it is the same link.
  const [linkId, setLinkId] = useState(() => v7());
  const { form, submit, busy } = useSchemaForm<LinkPut>(linkPutSchema, { days: 30, uses: null }, async (body) => {
    const made = await put.send({ params: { id: c.id, linkId }, body });
    setLinkId(v7());
    form.reset();
    onMade(made);
  });
  return (
    <form noValidate onSubmit={submit} className="grid gap-3">
      <div className="flex flex-wrap items-end gap-4">
        <FormChoice form={form} name="days" label="A new link ends" none="never">
          {LINK_DAYS.map((days) => (
            <option key={days} value={days}>
              {LENGTHS[days]}
            </option>
          ))}
        </FormChoice>
        <FormField
          form={form}
          name="uses"
          label={`For how many people (${count(c.people, 'is', 'are')} in)`}
          hint="any"
        />
        <button className="press" disabled={busy}>
          Make a link
        </button>
      </div>
      <FormAlert form={form} />
    </form>
  );
}
