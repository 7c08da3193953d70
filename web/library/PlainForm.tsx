import { useState } from 'react';
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

function Fields({ q, onQuery, onClose }: { q: string; onQuery: (q: string) => void; onClose: () => void }) {
  const [form, setForm] = useState<Form>(() => formOf(q) ?? EMPTY_FORM);
  const known = useKnown();
  const typed = typedFrom(form);
  const parsed = parseQuery(typed);
  const lists: Partial<Record<keyof Form, readonly string[]>> = {
    tag: known.tag ?? [],
    in: known.in ?? [],
    kind: known.kind ?? [],
    type: known.type ?? [],
  };
  const set = (name: keyof Form, value: string): void => {
    const next = { ...form, [name]: value };
    setForm(next);
    if (parseQuery(typedFrom(next)).ok) onQuery(typedFrom(next));
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onClose();
      }}
      className="grid grid-cols-2 gap-x-5 gap-y-3"
    >
      {ORDER.map((name) => (
        <label
          key={name}
          className={`grid gap-0.5 text-[13px] text-faint ${name === 'words' || name === 'without' ? 'col-span-2' : ''}`}
        >
          {WORDS[name]}
          {name === 'is' || name === 'has' ? (
            <select value={form[name]} onChange={(e) => set(name, e.target.value)} className="field text-[15px]">
              <option value="">any</option>
              {CHOICES[name].map((c) => (
                <option key={c} value={c}>
                  {CHOICE_WORDS[c] ?? c}
                </option>
              ))}
            </select>
          ) : (
            <input
              value={form[name]}
              inputMode={name === 'minutes' || name === 'days' ? 'numeric' : 'text'}
              list={lists[name] ? `known-${name}` : undefined}
              onChange={(e) => set(name, e.target.value)}
              className="field text-[15px]"
            />
          )}
          {lists[name] && (
            <datalist id={`known-${name}`}>
              {lists[name].map((v) => (
                <option key={v} value={v} />
              ))}
            </datalist>
          )}
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
            setForm(EMPTY_FORM);
            onQuery('');
          }}
        >
          Empty it
        </button>
      </div>
    </form>
  );
}
