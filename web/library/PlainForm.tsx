import { useState } from 'react';
import { useForm, useWatch, type UseFormRegisterReturn } from 'react-hook-form';
import { Popover } from 'radix-ui';
import { CHOICES, EMPTY_FORM, formOf, parseQuery, typedFrom, type PlainForm as Form } from '@avrelle/core/query';
import { useKnown } from './QueryField';

const WORDS: Readonly<Record<Exclude<keyof Form, 'rest'>, string>> = {
  words: 'All these words',
  without: 'None of these',
  title: 'In the title',
  note: 'In my or others’ notes',
  quote: 'In marked passages',
  tag: 'Tag',
  in: 'Collection or class',
  by: 'Author',
  kind: 'Marked as',
  type: 'Type of source',
  is: 'State',
  has: 'With',
  minutes: 'Minutes, at most',
  days: 'Kept in the last … days',
};
const CHOICE_WORDS: Readonly<Record<string, string>> = {
  'to-read': 'to read',
  'set-aside': 'set aside',
  mine: 'mine',
  shared: 'shared',
  unplaced: 'unplaced marks',
  read: 'read to the end',
  note: 'notes',
  tag: 'tags',
  mark: 'marks',
  answer: 'answers',
  drawing: 'drawings',
  file: 'a file',
  remark: 'a remark',
};
const ORDER = [
  'words',
  'without',
  'title',
  'note',
  'quote',
  'by',
  'tag',
  'in',
  'kind',
  'type',
  'is',
  'has',
  'minutes',
  'days',
] as const;

/** The search as a form, for those who do not type one: both are the same search, and each shows what the other holds. */
export default function PlainForm({ q, onQuery }: { q: string; onQuery: (q: string) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="whitespace-nowrap text-[14px] text-soft hover:text-ink" title="The search as a form">
        As a form <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="The search as a form"
          align="end"
          sideOffset={8}
          className="over max-h-[80vh] w-[440px] max-w-[94vw] overflow-y-auto p-5 text-[14px]"
        >
          <Fields q={q} onQuery={onQuery} onClose={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const isOneOf = (name: string): name is keyof typeof CHOICES => name in CHOICES;
const TAKES_BOTH_COLUMNS: ReadonlySet<string> = new Set(['words', 'without']);
const NUMBERS: ReadonlySet<string> = new Set(['minutes', 'days']);

function Fields({ q, onQuery, onClose }: { q: string; onQuery: (q: string) => void; onClose: () => void }) {
  const { register, reset, handleSubmit, control, getValues } = useForm<Form>({
    defaultValues: formOf(q) ?? EMPTY_FORM,
  });
  const typed = typedFrom(useWatch({ control, compute: (form: Form) => form }));
  const parsed = parseQuery(typed);
  const ask = (): void => {
    const now = typedFrom(getValues());
    if (parseQuery(now).ok) onQuery(now);
  };
  return (
    <form onSubmit={handleSubmit(onClose)} className="grid grid-cols-2 gap-x-5 gap-y-3">
      {ORDER.map((name) => (
        <label
          key={name}
          className={`grid gap-0.5 text-[13px] text-faint ${TAKES_BOTH_COLUMNS.has(name) ? 'col-span-2' : ''}`}
        >
          {WORDS[name]}
          <Field name={name} given={register(name, { onChange: ask })} />
        </label>
      ))}
      <p className="col-span-2 border-t border-rule pt-2 font-mono text-[13px] text-soft" aria-live="polite">
        {parsed.ok ? typed || 'Everything' : parsed.error.message}
      </p>
      <div className="col-span-2 flex gap-5">
        <button className="press">Done</button>
        <button
          type="button"
          className="text-soft"
          onClick={() => {
            reset(EMPTY_FORM);
            onQuery('');
          }}
        >
          Empty it
        </button>
      </div>
    </form>
  );
}

/** One of a few, or words; those that are known are offered. */
function Field({ name, given }: { readonly name: keyof Form; readonly given: UseFormRegisterReturn }) {
  const known = useKnown();
  if (isOneOf(name))
    return (
      <select {...given} className="field text-[15px]">
        <option value="">any</option>
        {CHOICES[name].map((choice) => (
          <option key={choice} value={choice}>
            {CHOICE_WORDS[choice] ?? choice}
          </option>
        ))}
      </select>
    );
  const list = { tag: known.tag, in: known.in, kind: known.kind, type: known.type }[name as string];
  return (
    <>
      <input
        {...given}
        inputMode={NUMBERS.has(name) ? 'numeric' : 'text'}
        list={list && `known-${name}`}
        className="field text-[15px]"
      />
      {list && (
        <datalist id={`known-${name}`}>
          {list.map((value) => (
            <option key={value} value={value} />
          ))}
        </datalist>
      )}
    </>
  );
}
