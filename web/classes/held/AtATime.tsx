import { object, string } from 'yup';
import { DialogFoot } from '../../ui/DialogFoot';
import { DialogFrame } from '../../ui/DialogFrame';
import { FormAlert, FormField, useSchemaForm } from '../../ui/Form';
import { instantOf } from '../../ui/local-time';

const schema = object({
  at: string()
    .required('Choose a day and a time.')
    .test('exists', 'There is no such time on that day. Choose another.', (typed) => instantOf(typed) !== undefined)
    .test(
      'ahead',
      'That time is over. Choose a later one, or release it now.',
      (typed) => (instantOf(typed) ?? '~') > new Date().toISOString(),
    ),
});

interface Props {
  onChoose(instant: string): Promise<void>;
  onClose(): void;
}

/** When held notes are released by themselves. */
export function AtATime({ onChoose, onClose }: Props) {
  const { form, submit, busy } = useSchemaForm(schema, { at: '' }, async ({ at }) => {
    await onChoose(instantOf(at)!);
    onClose();
  });
  return (
    <DialogFrame title="Release at a time" onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <FormField form={form} name="at" label="Students see it from" type="datetime-local" autoFocus />
        <FormAlert form={form} />
        <DialogFoot action="Save" busy={busy} />
      </form>
    </DialogFrame>
  );
}
