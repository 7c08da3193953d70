import { array, object, string } from 'yup';
import type { StudyNote } from '@avrelle/core/wire';
import { useLegends } from '../data/queries';
import { Alert } from '../ui/Alert';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormCheckbox, FormRadios, useSchemaForm } from '../ui/Form';
import { Sign } from '../ui/Sign';
import type { useNotePatch } from './use-note-saver';

const CHOICES = ['all', 'kinds', 'put'] as const;
type Choice = (typeof CHOICES)[number];
const WORDS: Readonly<Record<Choice, string>> = {
  all: 'Everything I mark in this source',
  kinds: 'Only some kinds of marks',
  put: 'Only what I put there',
};
const joinsSchema = object({
  choice: string().oneOf(CHOICES).required(),
  kinds: array(string().required())
    .default([])
    .when('choice', { is: 'kinds', then: (kinds) => kinds.min(1, 'Choose at least one kind.') }),
});

interface Props {
  readonly note: StudyNote;
  onPatch: ReturnType<typeof useNotePatch>;
  onClose(): void;
}

/** What comes into the note of a source by itself. What stands there stays, whatever is chosen. */
export function JoinsDialog({ note, onPatch, onClose }: Props) {
  const legend = useLegends().data?.mine.kinds ?? [];
  const defaults = { choice: choiceOf(note), kinds: [...note.kinds] };
  const { form, submit } = useSchemaForm(joinsSchema, defaults, async ({ choice, kinds }) => {
    const body = { joins: choice === 'put' ? 'put' : 'all', kinds: choice === 'kinds' ? kinds : [] } as const;
    if (await onPatch(body)) onClose();
  });
  return (
    <DialogFrame title="What comes in by itself" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <FormRadios form={form} name="choice" legend="Into this note comes" choices={CHOICES} words={WORDS} />
        {form.watch('choice') === 'kinds' && (
          <fieldset className="grid grid-cols-2 gap-x-4 gap-y-1">
            <legend className="sr-only">Which kinds</legend>
            {legend.map((kind) => (
              <FormCheckbox key={kind.code} form={form} name="kinds" value={kind.code}>
                <Sign kind={kind} /> {kind.name}
              </FormCheckbox>
            ))}
            <Alert>{form.formState.errors.kinds?.message}</Alert>
          </fieldset>
        )}
        <p className="text-[13px] text-soft">What stands in the note stays, whatever you choose.</p>
        <FormAlert form={form} />
        <DialogFoot action="Save" />
      </form>
    </DialogFrame>
  );
}

function choiceOf({ joins, kinds }: StudyNote): Choice {
  if (joins === 'put') return 'put';
  return kinds.length > 0 ? 'kinds' : 'all';
}
