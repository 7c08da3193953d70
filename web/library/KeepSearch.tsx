import { useState, type FormEvent } from 'react';
import { Dialog } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import type { SavedSearch } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useClasses } from '../data/queries';
import { Alert } from '../ui/Alert';
import { DialogFrame } from '../ui/DialogFrame';
import { useMessages } from '../ui/Messages';

/** A search that is kept under a name, for oneself or with a class; and how it is changed or given up. */
export default function KeepSearch({
  search,
  q,
  onClose,
}: {
  search?: SavedSearch | undefined;
  q: string;
  onClose: () => void;
}) {
  const client = useQueryClient();
  const messages = useMessages();
  const classes = useClasses().data ?? [];
  const [wrong, setWrong] = useState('');
  const done = async (work: Promise<unknown>, words: string): Promise<void> => {
    try {
      await work;
      await renew(client, 'outline');
      messages.tell(words);
      onClose();
    } catch (error) {
      setWrong(wordsOf(error));
    }
  };
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const {
      name = '',
      query = '',
      classId = '',
    } = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    void done(
      call('PUT /api/searches/:id', {
        params: { id: search?.id ?? v7() },
        body: {
          name,
          query,
          classId: classId || null,
          ...(search ? { version: search.version } : {}),
        },
      }),
      `“${name}” stands beside the Library.`,
    );
  };
  return (
    <DialogFrame title={search ? 'A saved search' : 'Save this search'} onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <label className="grid gap-1 text-[13px] text-faint">
          Name
          <input
            name="name"
            autoFocus
            defaultValue={search?.name ?? ''}
            placeholder="Under ten minutes"
            className="field text-[15px]"
          />
        </label>
        <label className="grid gap-1 text-[13px] text-faint">
          What it looks for
          <input name="query" defaultValue={search?.query ?? q} className="field font-mono text-[14px]" />
        </label>
        <label className="grid gap-1 text-[13px] text-faint">
          Seen by
          <select name="classId" defaultValue={search?.classId ?? ''} className="field text-[15px]">
            <option value="">Only me</option>
            {classes.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </select>
        </label>
        {wrong && <Alert>{wrong}</Alert>}
        <div className="flex gap-5">
          <button className="press">Save</button>
          <Dialog.Close className="text-soft">Cancel</Dialog.Close>
          {search && (
            <button
              type="button"
              className="ml-auto text-brick"
              onClick={() =>
                void done(
                  call('DELETE /api/searches/:id', { params: { id: search.id } }),
                  `“${search.name}” is kept no longer.`,
                )
              }
            >
              Delete
            </button>
          )}
        </div>
      </form>
    </DialogFrame>
  );
}
