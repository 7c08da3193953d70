import { object, string } from 'yup';
import type { AssignmentDetail, StudentProgress } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { DialogFoot } from '../../ui/DialogFoot';
import { DialogFrame } from '../../ui/DialogFrame';
import { FormAlert, FormField, useSchemaForm } from '../../ui/Form';
import { instantOf, typedOf } from '../../ui/local-time';
import { dueAt } from '../../ui/when';

const schema = object({
  dueAt: string()
    .required('Choose a day and a time.')
    .test('exists', 'There is no such time on that day. Choose another.', (typed) => instantOf(typed) !== undefined),
});

interface Props {
  readonly set: AssignmentDetail;
  readonly student: StudentProgress;
  onClose(): void;
}

/** A later time for one student. */
export function MoreTime({ set, student, onClose }: Props) {
  const put = useWrite('PUT /api/classes/:id/assignments/:sourceId/extensions/:personId', 'classes');
  const params = { id: set.class.id, sourceId: set.source.id, personId: student.id };
  const give = async (instant: string | null): Promise<void> => {
    await put.send({ params, body: { dueAt: instant } });
    onClose();
  };
  const defaults = { dueAt: typedOf(student.extendedTo ?? set.dueAt!) };
  const { form, submit, busy } = useSchemaForm(schema, defaults, (values) => give(instantOf(values.dueAt)!));
  return (
    <DialogFrame title={`More time for ${student.name}`} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <p className="text-[14px] text-soft">For the class it is due {dueAt(set.dueAt!)}.</p>
        <FormField form={form} name="dueAt" label="Due for them" type="datetime-local" autoFocus />
        <FormAlert form={form} />
        <DialogFoot action="Save" busy={busy}>
          {student.extendedTo && (
            <button
              type="button"
              className="ml-auto text-[14px] text-soft hover:text-ink"
              onClick={() => void give(null)}
            >
              Due with the class again
            </button>
          )}
        </DialogFoot>
      </form>
    </DialogFrame>
  );
}
