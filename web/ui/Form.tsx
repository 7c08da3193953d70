import { useEffect, type ReactNode } from 'react';
import { yupResolver } from '@hookform/resolvers/yup';
import { useForm, type DefaultValues, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import type { ObjectSchema } from 'yup';
import { ProblemError, wordsOf } from '../data/api';
import { Alert } from './Alert';
import type { Kept } from './kept';

/**
 * A form that is checked by the schema the server checks by; what the server refuses stands beside the field it is
 * about. What is kept of it comes back; who sends it drops it.
 */
export function useSchemaForm<Values extends FieldValues>(
  schema: ObjectSchema<Values>,
  defaults: DefaultValues<Values>,
  send: (values: Values) => Promise<unknown>,
  kept?: Kept<Values>,
): { readonly form: UseFormReturn<Values>; readonly submit: (event: React.FormEvent) => void; readonly busy: boolean } {
  const form = useForm<Values>({
    resolver: yupResolver(schema as never) as never,
    defaultValues: defaults,
  });
  useKeeping(form, kept);
  const { isSubmitting } = form.formState;
  const submit = form.handleSubmit(async (values) => {
    try {
      await send(values);
    } catch (error) {
      const field = error instanceof ProblemError ? error.problem.field : undefined;
      const known = field !== undefined && field in values;
      form.setError(known ? (field as Path<Values>) : 'root', { message: wordsOf(error) }, { shouldFocus: known });
    }
  });
  return { form, submit: (event) => void submit(event), busy: isSubmitting };
}

/** Puts back what was typed before, and keeps what is typed, as long as it differs from what the form began with. */
export function useKeeping<Values extends FieldValues>(
  form: UseFormReturn<Values>,
  kept: Kept<Values> | undefined,
): void {
  useEffect(() => {
    if (!kept) return;
    if (kept.begun) form.reset(kept.begun, { keepDefaultValues: true });
    return form.subscribe({
      formState: { values: true, isDirty: true },
      callback: ({ values, isDirty }) => (isDirty ? kept.write(values) : kept.drop()),
    });
  }, [form, kept]);
}

interface FieldProps<Values extends FieldValues> {
  readonly form: UseFormReturn<Values>;
  readonly name: Path<Values>;
  readonly label: string;
  readonly type?: string;
  readonly step?: string;
  /** What is typed is a number; an empty field is none. */
  readonly asNumber?: boolean;
  readonly autoComplete?: string;
  readonly hint?: string | undefined;
  /** Of several lines; one where nothing is said. */
  readonly rows?: number | undefined;
  readonly autoFocus?: boolean;
  /** How what is written looks, where it is of a kind of its own. */
  readonly look?: string;
}

export function FormField<Values extends FieldValues>({
  form,
  name,
  label,
  type = 'text',
  step,
  asNumber = false,
  autoComplete = 'off',
  hint,
  rows,
  autoFocus = false,
  look = '',
}: FieldProps<Values>) {
  const wrong = form.getFieldState(name, form.formState).error?.message;
  const common = { autoComplete, placeholder: hint, autoFocus, 'aria-invalid': wrong ? true : undefined };
  return (
    <label className="grid gap-1 text-[14px] text-soft">
      {label}
      {rows === undefined ? (
        <input
          {...form.register(name, asNumber ? { valueAsNumber: true } : undefined)}
          {...common}
          type={type}
          step={step}
          className={`field text-[15px] ${look}`}
        />
      ) : (
        <textarea {...form.register(name)} {...common} rows={rows} className={`field resize-y text-[15px] ${look}`} />
      )}
      <Alert>{wrong}</Alert>
    </label>
  );
}

/** An id that is chosen from a list; its first entry, without a value, stands for none. */
const chosenId = (value: unknown): unknown => (value === '' ? null : value);

/** One of a few, named. Where ids are chosen, `none` names the choice of nothing. */
export function FormChoice<Values extends FieldValues>({
  form,
  name,
  label,
  none,
  children,
}: Pick<FieldProps<Values>, 'form' | 'name' | 'label'> & { readonly none?: string; readonly children: ReactNode }) {
  return (
    <label className="grid gap-1 text-[14px] text-soft">
      {label}
      <select {...form.register(name, { setValueAs: chosenId })} className="field text-[15px]">
        {none !== undefined && <option value="">{none}</option>}
        {children}
      </select>
      <Alert>{form.getFieldState(name, form.formState).error?.message}</Alert>
    </label>
  );
}

interface RadiosProps<Values extends FieldValues, Choice extends string> {
  readonly form: UseFormReturn<Values>;
  readonly name: Path<Values>;
  readonly legend: string;
  readonly choices: readonly Choice[];
  readonly words: Readonly<Record<Choice, string>>;
  /** Where it heads a part of a long form. */
  readonly isHeading?: boolean;
}

/** One of a few, all of them before one's eyes. */
export function FormRadios<Values extends FieldValues, Choice extends string>(props: RadiosProps<Values, Choice>) {
  const { form, name, legend, choices, words, isHeading = false } = props;
  return (
    <fieldset>
      <legend className={`mb-1 ${isHeading ? 'text-[17px] font-semibold text-ink' : 'text-[14px] text-soft'}`}>
        {legend}
      </legend>
      <div className="flex flex-wrap gap-x-6 gap-y-1.5">
        {choices.map((choice) => (
          <label key={choice} className="flex cursor-pointer items-baseline gap-2 text-[15px]">
            <input type="radio" value={choice} className="accent-[var(--tide)]" {...form.register(name)} />
            {words[choice]}
          </label>
        ))}
      </div>
      <Alert>{form.getFieldState(name, form.formState).error?.message}</Alert>
    </fieldset>
  );
}

const CHECKBOX = 'flex cursor-pointer gap-2 text-[15px]';
/** Yes or no; with a value, one of several that are chosen. */
export function FormCheckbox<Values extends FieldValues>({
  form,
  name,
  value,
  children,
}: Pick<FieldProps<Values>, 'form' | 'name'> & { readonly value?: string; readonly children: ReactNode }) {
  return (
    <label className={`${CHECKBOX} w-fit items-baseline pointer-coarse:min-h-[44px] pointer-coarse:items-center`}>
      <input
        type="checkbox"
        className="accent-[var(--tide)]"
        {...(value === undefined ? {} : { value })}
        {...form.register(name)}
      />
      <span>{children}</span>
    </label>
  );
}

/** Choices by their ids. */
export const FormOptions = ({ of }: { readonly of: readonly { readonly id: string; readonly name: string }[] }) =>
  of.map(({ id, name }) => (
    <option key={id} value={id}>
      {name}
    </option>
  ));

/** What went wrong with the whole of it. */
export function FormAlert<Values extends FieldValues>({ form }: { readonly form: UseFormReturn<Values> }) {
  return <Alert>{form.formState.errors.root?.message}</Alert>;
}
