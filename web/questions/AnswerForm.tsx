import { useEffect, useState, type KeyboardEvent } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { array, number, object, string, type InferType } from 'yup';
import type { Question, QuestionResponse, ResponsePut } from '@avrelle/core/wire';
import type { Slot } from '../data/unfinished';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { FormAlert, useSchemaForm } from '../ui/Form';
import { waitWords } from './words';

/** What is chosen and typed: of the form of the question, the others stay empty. */
const answerSchema = object({
  choices: array(string().required()).required(),
  number: number()
    .transform((value: number) => (Number.isNaN(value) ? null : value))
    .nullable()
    .default(null),
  words: string().defined(),
});
type Values = InferType<typeof answerSchema>;

interface Props {
  readonly question: Question;
  /** Where words that were not sent are kept. */
  readonly slot: Slot;
  onDone(): void;
  /** Where an answer stands already, it can stay as it is. */
  readonly onCancel?: (() => void) | undefined;
}

/** Answering a question of the class, or changing the answer. */
export function AnswerForm({ question, slot: given, onDone, onCancel }: Props) {
  const put = useWrite('PUT /api/annotations/:id/response', 'questions');
  const [slot] = useState(given);
  const [begun] = useState(() => slot.read()?.note);
  const { form, submit, busy } = useSchemaForm(answerSchema, valuesOf(question.response, begun), async (values) => {
    await put.send({ params: { id: question.id }, body: putOf(values) });
    slot.drop();
    onDone();
  });
  const words = form.watch('words');
  const before = question.response?.words ?? '';
  useEffect(() => {
    if (question.form !== 'open') return;
    if (words.trim() && words !== before) slot.write({ note: words });
    else if (slot.read()) slot.drop();
  }, [question.form, words, before, slot]);
  const onKey = (event: KeyboardEvent): void => {
    // The page has keys of its own.
    event.stopPropagation();
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) submit(event);
    if (event.key === 'Escape') onCancel?.();
  };
  return (
    <form noValidate onSubmit={submit} onKeyDown={onKey} className="grid gap-2">
      <Fields question={question} form={form} />
      <FormAlert form={form} />
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <button className="press !px-3 !py-1 text-[13.5px]" disabled={busy}>
          Answer
        </button>
        {onCancel && (
          <button type="button" className="text-[13px] text-soft" onClick={onCancel}>
            Cancel
          </button>
        )}
        <span className="text-[13px] text-soft">{waitWords(question)}</span>
      </div>
    </form>
  );
}

const valuesOf = (response: QuestionResponse | null, begun: string | undefined): Values => ({
  choices: response?.choices.map(String) ?? [],
  number: response?.number ?? null,
  words: begun ?? response?.words ?? '',
});
const putOf = ({ choices, number: value, words }: Values): ResponsePut => ({
  choices: choices.map(Number),
  number: value,
  words,
});

function Fields({ question, form }: { readonly question: Question; readonly form: UseFormReturn<Values> }) {
  const wrong = form.formState.errors;
  switch (question.form) {
    case 'open':
      return (
        <>
          <textarea
            aria-label="Your answer"
            rows={3}
            placeholder="Your answer…"
            className="field resize-y text-[14.5px]"
            {...form.register('words')}
          />
          <Alert>{wrong.words?.message}</Alert>
        </>
      );
    case 'number':
      return (
        <>
          <label className="flex items-baseline gap-2 text-[14.5px]">
            <span className="sr-only">Your answer</span>
            <input
              type="number"
              step="any"
              placeholder="Your answer"
              className="field !w-[130px]"
              {...form.register('number', { valueAsNumber: true })}
            />
            {question.unit}
          </label>
          <Alert>{wrong.number?.message}</Alert>
        </>
      );
    default:
      return <Choices question={question} form={form} />;
  }
}

/** One choice stands in the list of choices alone, as several do. */
function Choices({ question, form }: { readonly question: Question; readonly form: UseFormReturn<Values> }) {
  const taken = form.watch('choices');
  const isOne = question.form === 'one';
  const take = (at: string): void => {
    const others = isOne ? [] : taken.filter((other) => other !== at);
    form.setValue('choices', taken.includes(at) && !isOne ? others : [...others, at], { shouldDirty: true });
  };
  return (
    <fieldset>
      <legend className="sr-only">Your answer</legend>
      {question.choices.map((words, at) => (
        <label key={words} className="flex cursor-pointer items-baseline gap-2 py-0.5 text-[14.5px] leading-5">
          <input
            type={isOne ? 'radio' : 'checkbox'}
            name={`choice ${question.id}`}
            checked={taken.includes(String(at))}
            onChange={() => take(String(at))}
            className="accent-[var(--tide)]"
          />
          <span dir="auto">{words}</span>
        </label>
      ))}
      <Alert>{form.formState.errors.choices?.message}</Alert>
    </fieldset>
  );
}
