import { useState } from 'react';
import { v7 } from 'uuid';
import { collectionPutSchema, type CollectionRow } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { useOpenClasses, useOutline } from '../data/queries';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormChoice, FormField, FormOptions, useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';

interface Props {
  readonly collection?: CollectionRow | undefined;
  onClose(): void;
  onMade?(id: string): void;
  onRemoved?(): void;
}

/** A collection's name, where it stands, and who may read it or add to it. */
export default function CollectionDialog({ collection, onClose, onMade = onClose, onRemoved }: Props) {
  const put = useWrite('PUT /api/collections/:id', 'library');
  const classes = useOpenClasses().data ?? [];
  const [id] = useState(() => collection?.id ?? v7());
  const collections = useOutline().data?.collections ?? [];
  const outer = collections.filter((c) => c.owned && !c.parentId && c.id !== id);
  const { form, submit, busy } = useSchemaForm(collectionPutSchema, valuesOf(collection), async (body) => {
    await put.send({ params: { id }, body });
    onMade(id);
  });
  return (
    <DialogFrame title={collection ? 'About this collection' : 'A new collection'} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <FormField form={form} name="name" label="Name" hint="Essay: managed retreat" autoFocus />
        {outer.length > 0 && (
          <FormChoice form={form} name="parentId" label="Stands in" none="none">
            <FormOptions of={outer} />
          </FormChoice>
        )}
        <FormChoice form={form} name="classId" label="Seen by" none="Only me">
          <FormOptions of={classes} />
        </FormChoice>
        {form.watch('classId') && (
          <FormChoice form={form} name="may" label="They may">
            <option value="read">read it</option>
            <option value="add">read it, add to it and order it</option>
          </FormChoice>
        )}
        <FormAlert form={form} />
        <DialogFoot action="Save" busy={busy}>
          {collection && onRemoved && (
            <Removal
              collection={collection}
              inside={collections.filter((c) => c.parentId === id).length}
              onRemoved={onRemoved}
            />
          )}
        </DialogFoot>
      </form>
    </DialogFrame>
  );
}

/** A new one stands by itself, for its owner alone. */
const valuesOf = (collection: CollectionRow | undefined) => ({
  version: collection?.version,
  name: collection?.name ?? '',
  parentId: collection?.parentId ?? null,
  classId: collection?.classId ?? null,
  may: collection?.may ?? 'read',
});

interface RemovalProps {
  readonly collection: CollectionRow;
  /** How many collections stand in it. */
  readonly inside: number;
  onRemoved(): void;
}

/** Deletes it, with a way back; its sources stay. */
function Removal({ collection: { id, name }, inside, onRemoved }: RemovalProps) {
  const back = useWrite('POST /api/collections/:id/restore', 'library');
  const away = useWrite('DELETE /api/collections/:id', 'library');
  const messages = useMessages();
  const [wrong, setWrong] = useState('');
  const remove = async (): Promise<void> => {
    await away.send({ params: { id } });
    const within = inside > 0 ? ', and so does what stands inside it' : '';
    messages.tell(`“${name}” deleted; its sources stay${within}.`, {
      label: 'Undo',
      run: () => back.run({ params: { id } }, () => messages.tell(`“${name}” is back.`)),
    });
    onRemoved();
  };
  return (
    <>
      <button
        type="button"
        className="ml-auto text-brick"
        onClick={() => void remove().catch((error: unknown) => setWrong(wordsOf(error)))}
      >
        Delete
      </button>
      {wrong && (
        <div className="basis-full">
          <Alert>{wrong}</Alert>
        </div>
      )}
    </>
  );
}
