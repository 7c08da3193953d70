import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly editing: boolean;
  readonly children: ReactNode;
  onEdit(): void;
  /** Ends it: with what was written, or without. False when that did not hold; then the words stay. */
  onDone(value: string | undefined, then?: 'next' | 'before'): Promise<boolean>;
}

/** A fact in a row that can be corrected where it stands; it is made anew when editing begins or ends. Enter keeps it, Escape leaves it, Tab keeps it and goes on to the next. */
export function EditableCell({ label, value, editing, children, onEdit, onDone }: Props) {
  const [words, setWords] = useState(value), busy = useRef(false), input = useRef<HTMLInputElement>(null);
  if (!editing) return <span role="cell" className="truncate px-2" title="Double-click, or F2, to correct it" onDoubleClick={onEdit}>{children}</span>;
  const done = async (given: string | undefined, then?: 'next' | 'before'): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    const held = await onDone(given === value ? undefined : given, then);
    busy.current = false;
    if (!held) input.current?.focus();
  };
  const onKey = (event: KeyboardEvent): void => {
    event.stopPropagation();
    if (event.key === 'Enter') void done(words.trim());
    if (event.key === 'Escape') void done(undefined);
    if (event.key === 'Tab') { event.preventDefault(); void done(words.trim(), event.shiftKey ? 'before' : 'next'); }
  };
  return <span role="cell" className="px-1"><input ref={input} autoFocus aria-label={label} value={words} onFocus={(e) => e.target.select()} onChange={(e) => setWords(e.target.value)} onKeyDown={onKey} onBlur={() => void done(words.trim())} className="w-full border-b-2 border-tide bg-paper px-1 outline-none" /></span>;
}
