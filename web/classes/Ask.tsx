import type { ReactNode } from 'react';
import type { FieldValues, Path } from 'react-hook-form';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormField, type useSchemaForm } from '../ui/Form';

interface Props<Values extends FieldValues> extends ReturnType<typeof useSchemaForm<Values>> {
  readonly title: string;
  readonly name: Path<Values>;
  readonly label: string;
  /** What pressing the button does. */
  readonly action: string;
  onClose(): void;
  readonly children: ReactNode;
}

/** Asks for one line of words before something is done. */
export function Ask<Values extends FieldValues>(props: Props<Values>) {
  const { title, name, label, action, form, submit, busy, onClose, children } = props;
  return (
    <DialogFrame title={title} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-3">
        <p className="text-[14px] text-soft">{children}</p>
        <FormField form={form} name={name} label={label} autoFocus />
        <FormAlert form={form} />
        <DialogFoot action={action} busy={busy} />
      </form>
    </DialogFrame>
  );
}
