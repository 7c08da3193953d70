import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import type { Kind } from '@avrelle/core/legend';
import { Alert } from '../../ui/Alert';
import type { SetValues } from './set-form';

/** How many marks of which kinds, and how many answers to others. */
export function ExpectedFields({
  form,
  kinds,
}: {
  readonly form: UseFormReturn<SetValues>;
  readonly kinds: readonly Kind[];
}) {
  const { register, formState } = form;
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'marks' });
  const taken = new Set(form.watch('marks').map((m) => m.kind));
  const free = ['', ...kinds.map((k) => k.code)].find((code) => !taken.has(code));
  const wrong = formState.errors;
  return (
    <fieldset>
      <legend className="mb-1 text-[17px] font-semibold text-ink">What you expect of each student</legend>
      <ul>
        {fields.map((field, i) => (
          <li key={field.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-2">
            <input
              type="number"
              min={1}
              max={50}
              aria-label={`How many, ${i + 1}`}
              aria-invalid={wrong.marks?.[i]?.count ? true : undefined}
              className="field !w-[72px] text-[15px]"
              {...register(`marks.${i}.count`, { valueAsNumber: true })}
            />
            <select
              aria-label={`Of which kind, ${i + 1}`}
              className="field !w-[220px] text-[15px]"
              {...register(`marks.${i}.kind`)}
            >
              <option value="">marks of any kind</option>
              {kinds.map(({ code, name, sign }) => (
                <option key={code} value={code}>
                  marks of the kind {name} {sign}
                </option>
              ))}
            </select>
            <button type="button" className="ml-auto text-[14px] text-soft hover:text-ink" onClick={() => remove(i)}>
              Remove<span className="sr-only"> {i + 1}</span>
            </button>
            <Alert>{wrong.marks?.[i]?.count?.message}</Alert>
          </li>
        ))}
        <OthersFields form={form} />
      </ul>
      <Alert>{wrong.marks?.root?.message ?? wrong.marks?.message}</Alert>
      {free !== undefined && (
        <button
          type="button"
          className="act mt-2 text-[14px]"
          onClick={() => append({ kind: free, count: 1 }, { shouldFocus: true })}
        >
          Ask for another kind of mark
        </button>
      )}
      <p className="mt-1.5 text-[13px] text-soft">
        Only what is written for the class counts. Where nothing is asked for it is done when it is read to its end.
      </p>
    </fieldset>
  );
}

/** Answers: to what others marked, and to what is asked. */
function OthersFields({ form: { register, formState } }: { readonly form: UseFormReturn<SetValues> }) {
  const wrong = formState.errors;
  return (
    <>
      <li className="flex flex-wrap items-baseline gap-x-3 border-y border-rule py-2 text-[15px]">
        <input
          type="number"
          min={0}
          max={50}
          aria-label="Answers to others"
          aria-invalid={wrong.answers ? true : undefined}
          className="field !w-[72px] text-[15px]"
          {...register('answers', { valueAsNumber: true })}
        />
        answers to others
        <Alert>{wrong.answers?.message}</Alert>
      </li>
      <li className="border-b border-rule py-2 text-[15px]">
        <label className="flex cursor-pointer items-baseline gap-2">
          <input type="checkbox" className="accent-[var(--tide)]" {...register('questions')} />
          answers to the questions that are asked in it
        </label>
      </li>
    </>
  );
}
