import { useMemo } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import {
  DIGEST_EVERY,
  notificationSettingsSchema,
  type NotificationKind,
  type Notifications,
  type NotificationSettings,
} from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { DataTable, type PlainColumn } from '../ui/DataTable';
import { FormAlert, FormChoice, FormRadios, useSchemaForm } from '../ui/Form';
import { ownZone } from '../ui/local-time';
import { useMessages } from '../ui/Messages';

/** Under which it is told what is meant. */
const KINDS: Readonly<Record<NotificationKind, string>> = {
  answer: 'Somebody answers me',
  thread: 'There is an answer further down in a thread I began',
  mention: 'Somebody mentions me',
  link: 'Somebody links to a note of mine',
  followed: 'Something is new in what I follow',
  assignment: 'A reading is set, or changed',
  due: 'Something is due tomorrow, and not done',
  released: 'Comments are released',
  question: 'A question of mine is answered, or answers are shown',
  asking: 'Somebody asks to join a class I teach',
  class: 'I am let in to a class; a note is hidden or reported',
};
const EVERY = { never: 'never', hour: 'every hour', day: 'once a day' } as const;
const HOURS = Array.from({ length: 24 }, (_, hour) => hour);

type Form = UseFormReturn<NotificationSettings>;
type KindRow = NotificationSettings['kinds'][number] & { readonly at: number };

/** Where each kind is told, and how often mails come. */
export function SettingsForm({ of }: { readonly of: Notifications }) {
  const put = useWrite('PUT /api/notifications', 'notifications');
  const messages = useMessages();
  const { every, hour, kinds } = of;
  const { form, submit, busy } = useSchemaForm<NotificationSettings>(
    notificationSettingsSchema,
    // Mails come by the clock of where one is.
    { every, hour, zone: ownZone(), kinds: [...kinds] },
    async (body) => {
      await put.send({ body });
      form.reset(body);
      messages.tell('Saved.');
    },
  );
  const columns = useMemo(() => columnsOf(form, of.sends), [form, of.sends]);
  const mails = form.watch('every');
  const clock = ownZone().replaceAll('_', ' ');
  return (
    <form noValidate onSubmit={submit} className="grid max-w-[760px] gap-6">
      {of.sends ? (
        <section aria-label="Mail" className="grid gap-3">
          <FormRadios
            form={form}
            name="every"
            legend="What is new, by mail"
            choices={DIGEST_EVERY}
            words={EVERY}
            isHeading
          />
          {mails === 'day' && (
            <div className="max-w-[180px]">
              <FormChoice form={form} name="hour" label="At this hour">
                {HOURS.map((at) => (
                  <option key={at} value={at}>
                    {`${String(at).padStart(2, '0')}:00`}
                  </option>
                ))}
              </FormChoice>
            </div>
          )}
          <p className="text-[13.5px] text-soft">
            {mails === 'never'
              ? 'No mails come.'
              : `To ${of.email}, where something is new that you have not seen. The clock is that of ${clock}.`}
          </p>
        </section>
      ) : (
        <p className="text-[14px] text-soft">Mails cannot be sent here: whoever runs this Avrelle has not set it up.</p>
      )}
      <section aria-label="Kinds" className="min-w-0">
        <h2 className="mb-1 text-[17px]">What you are told</h2>
        <DataTable
          label="Where you are told of it"
          columns={columns}
          rows={kinds.map((kind, at) => ({ ...kind, at }))}
          idOf={(row) => row.kind}
        />
      </section>
      <FormAlert form={form} />
      <button className="press justify-self-start" disabled={busy}>
        Save
      </button>
    </form>
  );
}

function columnsOf(form: Form, sends: boolean): PlainColumn<KindRow>[] {
  const box = (at: number, where: 'desk' | 'mail', words: string) => (
    <label className="inline-grid place-items-center pointer-coarse:min-h-[44px] pointer-coarse:min-w-[44px]">
      <input
        type="checkbox"
        aria-label={`${KINDS[form.getValues(`kinds.${at}.kind`)]}: ${words}`}
        className="accent-[var(--tide)]"
        {...form.register(`kinds.${at}.${where}`)}
      />
    </label>
  );
  return [
    {
      id: 'kind',
      header: 'When',
      cell: ({ row }) => <span className="whitespace-normal">{KINDS[row.original.kind]}</span>,
    },
    {
      id: 'desk',
      header: 'On the Desk',
      cell: ({ row: { original } }) =>
        original.kind === 'due' ? <span className="text-soft">always</span> : box(original.at, 'desk', 'on the Desk'),
    },
    ...(sends
      ? [
          {
            id: 'mail',
            header: 'By mail',
            cell: ({ row }) => box(row.original.at, 'mail', 'by mail'),
          } satisfies PlainColumn<KindRow>,
        ]
      : []),
  ];
}
