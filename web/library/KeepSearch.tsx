import { useState } from 'react';
import { v7 } from 'uuid';
import { savedSearchSchema, type SavedSearch } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { useOpenClasses } from '../data/queries';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormChoice, FormField, FormOptions, useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';

interface Props {
  readonly search?: SavedSearch | undefined;
  readonly q: string;
  onClose(): void;
}

/** A search that is kept under a name, for oneself or with a class; and how it is changed or given up. */
export default function KeepSearch({ search, q, onClose }: Props) {
  const put = useWrite('PUT /api/searches/:id', 'outline');
  const giveUp = useWrite('DELETE /api/searches/:id', 'outline');
  const messages = useMessages();
  const classes = useOpenClasses().data ?? [];
  const [id] = useState(() => search?.id ?? v7());
  const [wrong, setWrong] = useState('');
  const end = (words: string): void => {
    messages.tell(words);
    onClose();
  };
  const { form, submit, busy } = useSchemaForm(
    savedSearchSchema,
    { version: search?.version, name: search?.name ?? '', query: search?.query ?? q, classId: search?.classId ?? null },
    async (body) => {
      await put.send({ params: { id }, body });
      end(`“${body.name}” stands beside the Library.`);
    },
  );
  const remove = (): void => {
    giveUp.send({ params: { id } }).then(
      () => end(`“${search?.name}” is kept no longer.`),
      (error: unknown) => setWrong(wordsOf(error)),
    );
  };
  return (
    <DialogFrame title={search ? 'A saved search' : 'Save this search'} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <FormField form={form} name="name" label="Name" hint="Under ten minutes" autoFocus />
        <FormField form={form} name="query" label="What it looks for" look="font-mono !text-[14px]" />
        <FormChoice form={form} name="classId" label="Seen by" none="Only me">
          <FormOptions of={classes} />
        </FormChoice>
        <FormAlert form={form} />
        <Alert>{wrong}</Alert>
        <DialogFoot action="Save" busy={busy}>
          {search && (
            <button type="button" className="ml-auto text-brick" onClick={remove}>
              Delete
            </button>
          )}
        </DialogFoot>
      </form>
    </DialogFrame>
  );
}
