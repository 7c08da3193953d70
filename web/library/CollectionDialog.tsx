import { useState, type FormEvent } from 'react';
import { Dialog } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import type { CollectionRow } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useClasses, useOutline } from '../data/queries';
import { Alert } from '../ui/Alert';
import { DialogFrame } from '../ui/DialogFrame';
import { useMessages } from '../ui/Messages';

/** A collection's name, where it stands, and who may read it or add to it. */
export default function CollectionDialog({
  collection,
  onClose,
  onMade,
  onRemoved,
}: {
  collection?: CollectionRow | undefined;
  onClose: () => void;
  onMade?: (id: string) => void;
  onRemoved?: () => void;
}) {
  const client = useQueryClient();
  const classes = useClasses().data ?? [];
  const outline = useOutline().data;
  const [wrong, setWrong] = useState('');
  const [classId, setClassId] = useState(collection?.classId ?? '');
  const messages = useMessages();
  const outer = outline?.collections.filter((c) => c.owned && !c.parentId && c.id !== collection?.id) ?? [];
  const inside = outline?.collections.filter((c) => c.parentId === collection?.id).length ?? 0;
  const send = async (work: Promise<unknown>, then: () => void): Promise<void> => {
    try {
      await work;
      await renew(client, 'library');
      then();
    } catch (error) {
      setWrong(wordsOf(error));
    }
  };
  const remove = async (): Promise<void> => {
    const { id, name } = collection!;
    const within = inside > 0 ? ', and so does what stands inside it' : '';
    const restore = async (): Promise<void> => {
      await call('POST /api/collections/:id/restore', { params: { id } });
      await renew(client, 'library');
      messages.tell(`“${name}” is back.`);
    };
    const undo = (): void => void restore().catch((error: unknown) => messages.warn(wordsOf(error)));
    await send(call('DELETE /api/collections/:id', { params: { id } }), () => {
      messages.tell(`“${name}” deleted; its sources stay${within}.`, { label: 'Undo', run: undo });
      onRemoved?.();
    });
  };
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const {
      name = '',
      parentId = '',
      may = 'read',
    } = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    const id = collection?.id ?? v7();
    void send(
      call('PUT /api/collections/:id', {
        params: { id },
        body: {
          name,
          parentId: parentId || null,
          classId: classId || null,
          may: may === 'add' ? 'add' : 'read',
          ...(collection ? { version: collection.version } : {}),
        },
      }),
      () => (onMade ?? onClose)(id),
    );
  };
  return (
    <DialogFrame title={collection ? 'About this collection' : 'A new collection'} onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <label className="grid gap-1 text-[13px] text-faint">
          Name
          <input
            name="name"
            autoFocus
            defaultValue={collection?.name ?? ''}
            placeholder="Essay: managed retreat"
            className="field text-[15px]"
          />
        </label>
        {outer.length > 0 && (
          <label className="grid gap-1 text-[13px] text-faint">
            Stands in
            <select name="parentId" defaultValue={collection?.parentId ?? ''} className="field text-[15px]">
              <option value="">none</option>
              {outer.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="grid gap-1 text-[13px] text-faint">
          Seen by
          <select value={classId} onChange={(e) => setClassId(e.target.value)} className="field text-[15px]">
            <option value="">Only me</option>
            {classes.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </select>
        </label>
        {classId && (
          <label className="grid gap-1 text-[13px] text-faint">
            They may
            <select name="may" defaultValue={collection?.may ?? 'read'} className="field text-[15px]">
              <option value="read">read it</option>
              <option value="add">read it, add to it and order it</option>
            </select>
          </label>
        )}
        {wrong && <Alert>{wrong}</Alert>}
        <div className="flex gap-5">
          <button className="press">Save</button>
          <Dialog.Close className="text-soft">Cancel</Dialog.Close>
          {collection && onRemoved && (
            <button type="button" className="ml-auto text-brick" onClick={() => void remove()}>
              Delete
            </button>
          )}
        </div>
      </form>
    </DialogFrame>
  );
}
