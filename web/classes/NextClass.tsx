import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { nextClassSchema, YEAR_IN_WEEKS, type ClassDetail, type NextClass as Next } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormChoice, FormField, useSchemaForm } from '../ui/Form';
import { ownZone } from '../ui/local-time';
import { useMessages } from '../ui/Messages';

/** Begins another class with what this one reads. */
export function NextClass({ of: c, onClose }: { readonly of: ClassDetail; onClose(): void }) {
  const begin = useWrite('POST /api/classes/:id/next', 'classes');
  const navigate = useNavigate();
  const messages = useMessages();
  // Sent again, it is the same class.
  const [id] = useState(() => v7());
  const defaults = { id, name: `${c.name}, next year`, tint: c.tint, weeks: YEAR_IN_WEEKS, zone: ownZone() } as Next;
  const { form, submit, busy } = useSchemaForm<Next>(nextClassSchema, defaults, async (body) => {
    const made = await begin.send({ params: { id: c.id }, body });
    messages.tell(`${made.name} begins with what ${c.name} reads.`);
    onClose();
    await navigate(`/classes/${made.id}`);
  });
  return (
    <DialogFrame title="Begin the next class from this one" onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <p className="text-[14px] text-soft">
          It begins with the readings, what is asked for, and the Legend of {c.name}. Nobody is in it but you, and
          nothing is written in it.
        </p>
        <FormField form={form} name="name" label="Name" autoFocus />
        <FormChoice form={form} name="weeks" label="When readings open and are due" none="Leave the dates out">
          <option value={YEAR_IN_WEEKS}>A year later, on the same day of the week</option>
        </FormChoice>
        <FormAlert form={form} />
        <DialogFoot action="Begin it" busy={busy} />
      </form>
    </DialogFrame>
  );
}
