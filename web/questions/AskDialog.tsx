import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { ANSWERS_SHOWN, QUESTION_FORMS } from '@avrelle/core/class';
import { MOST_CHOICES, type AnnotationId, type Question } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormField, FormRadios, useSchemaForm } from '../ui/Form';
import { useKept } from '../ui/kept';
import { KeptBack } from '../ui/KeptBack';
import { useMessages } from '../ui/Messages';
import { askSchema, EMPTY_CHOICE, putOf, valuesOf, type AskValues } from './ask-form';
import { FORM_WORDS, SHOWN_WORDS } from './words';

interface Props {
  readonly id: AnnotationId;
  /** The note that asks. */
  readonly words: string;
  /** As it is asked already. */
  readonly question?: Question;
  onClose(): void;
}

/** Makes a note a question to the class, or changes what is asked. */
export default function AskDialog({ id, words, question, onClose }: Props) {
  const put = useWrite('PUT /api/annotations/:id/question', 'questions');
  const messages = useMessages();
  const kept = useKept<AskValues>(useMe().id, `ask/${id}`, question?.version ?? null);
  const send = async (values: AskValues): Promise<void> => {
    await put.send({ params: { id }, body: putOf(values, kept.upon ?? undefined) });
    kept.drop();
    messages.tell(question ? 'The question is changed.' : 'The class is asked.');
    onClose();
  };
  const { form, submit, busy } = useSchemaForm(askSchema, valuesOf(question), send, kept);
  return (
    <DialogFrame title={question ? 'Change the question' : 'Ask the class'} width={520} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-4">
        <KeptBack form={form} kept={kept} />
        <p dir="auto" className="line-clamp-3 border-l-2 border-strong pl-2.5 text-[15px]">
          {words || 'The note has no words yet: write in it what you ask.'}
        </p>
        <AskedFor form={form} />
        <FormRadios
          form={form}
          name="answersShown"
          legend="Students see the answers"
          choices={ANSWERS_SHOWN}
          words={SHOWN_WORDS}
        />
        <FormAlert form={form} />
        <DialogFoot action={question ? 'Save changes' : 'Ask'} busy={busy}>
          {question && <Withdraw question={question} onDone={onClose} />}
        </DialogFoot>
      </form>
    </DialogFrame>
  );
}

/** How students answer, and what is right of it. */
export function AskedFor({ form }: { readonly form: UseFormReturn<AskValues> }) {
  const asked = form.watch('form');
  return (
    <>
      <FormRadios form={form} name="form" legend="Students answer" choices={QUESTION_FORMS} words={FORM_WORDS} />
      {(asked === 'one' || asked === 'several') && <Choices form={form} />}
      {asked === 'number' && <RightNumber form={form} />}
      <FormField
        form={form}
        name="model"
        label="Model answer (may be left empty)"
        hint="Students see it together with the answers."
        rows={3}
      />
    </>
  );
}

/** On a phone the words of a choice have a line of their own. */
const CHOICE =
  'grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-x-3 max-[600px]:grid-cols-[1fr_auto] max-[600px]:pb-2';

function Choices({ form }: { readonly form: UseFormReturn<AskValues> }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'choices' });
  const wrong = form.formState.errors.choices;
  return (
    <fieldset>
      <legend className="mb-1 text-[14px] text-soft">Choices; mark what is right, if anything is</legend>
      <ul className="grid gap-1">
        {fields.map((field, at) => (
          <li key={field.id} className={CHOICE}>
            <input
              aria-label={`Choice ${at + 1}`}
              className="field text-[15px] max-[600px]:col-span-2"
              {...form.register(`choices.${at}.words`)}
            />
            <label className="flex cursor-pointer items-baseline gap-1.5 whitespace-nowrap text-[13.5px]">
              <input
                type="checkbox"
                aria-label={`Choice ${at + 1} is right`}
                className="accent-[var(--tide)]"
                {...form.register(`choices.${at}.isRight`)}
              />
              right
            </label>
            <button
              type="button"
              aria-label={`Remove choice ${at + 1}`}
              className="text-[13.5px] text-soft hover:text-ink"
              onClick={() => remove(at)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <Alert>{wrong?.root?.message ?? wrong?.message}</Alert>
      {fields.length < MOST_CHOICES && (
        <button type="button" className="act mt-1.5 text-[14px]" onClick={() => append(EMPTY_CHOICE)}>
          One more choice
        </button>
      )}
    </fieldset>
  );
}

function RightNumber({ form }: { readonly form: UseFormReturn<AskValues> }) {
  return (
    <div className="grid grid-cols-3 gap-4">
      <FormField form={form} name="number" label="Right number" type="number" step="any" asNumber />
      <FormField form={form} name="tolerance" label="Give or take" type="number" step="any" asNumber />
      <FormField form={form} name="unit" label="Unit" hint="mm" />
    </div>
  );
}

/** The note stays; asked again, the answers are there again. */
function Withdraw({ question, onDone }: { readonly question: Question; onDone(): void }) {
  const withdraw = useWrite('DELETE /api/annotations/:id/question', 'questions');
  const put = useWrite('PUT /api/annotations/:id/question', 'questions');
  const messages = useMessages();
  const params = { id: question.id };
  const again = (): void => put.run({ params, body: putOf(valuesOf(question), undefined) });
  return (
    <button
      type="button"
      className="ml-auto text-[14px] font-semibold text-brick hover:underline"
      onClick={() =>
        withdraw.run({ params }, () => {
          messages.tell('The class is not asked any more; the note stays.', { label: 'Undo', run: again });
          onDone();
        })
      }
    >
      Do not ask
    </button>
  );
}
