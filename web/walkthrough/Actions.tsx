import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { object, string } from 'yup';
import type { ClassDetail, Walkthrough } from '@avrelle/core/wire';
import { useOpenClasses } from '../data/queries';
import { useWrite } from '../data/use-write';
import { useShowWalkthrough } from '../live/Choose';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormChoice, FormOptions, useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';

interface Props {
  readonly of: ClassDetail;
  readonly walkthrough: Walkthrough;
  readonly isEmpty: boolean;
}

/** What can be done with a walkthrough. */
export function Actions({ of: c, walkthrough, isEmpty }: Props) {
  const [copying, setCopying] = useState(false);
  const show = useShowWalkthrough(c.id);
  const here = `/classes/${c.id}/walkthroughs/${walkthrough.id}`;
  const others = (useOpenClasses().data ?? []).filter(({ id, role }) => id !== c.id && role !== 'student');
  if (isEmpty) return null;
  return (
    <p className="flex flex-wrap items-baseline gap-x-6 gap-y-1 text-[14px]">
      <Link className="press" to={`${here}/walk`}>
        Walk through it
      </Link>
      {c.archivedAt === null && (
        <button className="act" onClick={() => show(walkthrough.id)}>
          Show it live
        </button>
      )}
      {others.length > 0 && (
        <button className="act" onClick={() => setCopying(true)}>
          Copy to another class…
        </button>
      )}
      <a className="act" href={`/api${here}/steps.html`} download>
        Download to print (HTML)
      </a>
      <a className="act" href={`/api${here}/steps.md`} download>
        Markdown
      </a>
      {copying && <Copy of={c} walkthrough={walkthrough} others={others} onClose={() => setCopying(false)} />}
    </p>
  );
}

const copySchema = object({ classId: string().required('Choose a class.') });

interface CopyProps extends Omit<Props, 'isEmpty'> {
  readonly others: readonly { readonly id: string; readonly name: string }[];
  onClose(): void;
}

function Copy({ of: c, walkthrough, others, onClose }: CopyProps) {
  const copy = useWrite('POST /api/classes/:id/walkthroughs/:walkthroughId/copy', 'walkthroughs');
  const navigate = useNavigate();
  const messages = useMessages();
  const [id] = useState(() => v7());
  const { form, submit, busy } = useSchemaForm(copySchema, { classId: others[0]!.id }, async ({ classId }) => {
    await copy.send({ params: { id: c.id, walkthroughId: walkthrough.id }, body: { id, classId } });
    messages.tell('Copied: the notes are the same, not copies.');
    await navigate(`/classes/${classId}/walkthroughs/${id}`);
  });
  return (
    <DialogFrame title="Copy to another class" onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <FormChoice form={form} name="classId" label="To which class?">
          <FormOptions of={others} />
        </FormChoice>
        <p className="text-[14px] text-soft">
          Its steps and what you say go along. You see there which of the notes that class does not see yet.
        </p>
        <FormAlert form={form} />
        <DialogFoot action="Copy" busy={busy} />
      </form>
    </DialogFrame>
  );
}
