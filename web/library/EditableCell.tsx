import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { Written } from './use-corrections';

/** Where one goes on after a cell: the next or the one before it, the row, or wherever one has gone. */
export type Onward = 'next' | 'before' | 'row' | 'elsewhere';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly editing: boolean;
  /** What was written and is not in the list yet. */
  readonly written: Written | undefined;
  readonly children: ReactNode;
  onEdit(): void;
  /** Ends it: with what was written, or undefined when it is left as it was. */
  onDone(value: string | undefined, onward: Onward): void;
}

/**
 * A fact in a row that can be corrected where it stands; it is made anew when editing begins or ends. Enter keeps it,
 * Escape leaves it, Tab keeps it and goes on to the next at once.
 */
export function EditableCell({ label, value, editing, written, children, onEdit, onDone }: Props) {
  if (editing) return <Editing label={label} value={value} written={written} onDone={onDone} />;
  const wrong = written?.failed ? 'text-brick underline decoration-wavy underline-offset-4' : '';
  return (
    <span
      role="cell"
      className={`h-full truncate px-2 leading-[33px] pointer-coarse:leading-[44px] ${wrong}`}
      title={written?.failed ? 'Not saved. Double-click, or F2, to try again' : 'Double-click, or F2, to correct it'}
      onDoubleClick={onEdit}
    >
      {children}
    </span>
  );
}

function Editing({ label, value, written, onDone }: Pick<Props, 'label' | 'value' | 'written' | 'onDone'>) {
  const [words, setWords] = useState(written?.words ?? value);
  const ended = useRef(false);
  const done = (given: string | undefined, onward: Onward): void => {
    if (ended.current) return;
    ended.current = true;
    onDone(given === value ? undefined : given, onward);
  };
  const onKey = (event: KeyboardEvent): void => {
    event.stopPropagation();
    if (event.key === 'Enter') done(words.trim(), 'row');
    if (event.key === 'Escape') done(undefined, 'row');
    if (event.key !== 'Tab') return;
    event.preventDefault();
    done(words.trim(), event.shiftKey ? 'before' : 'next');
  };
  return (
    <span role="cell" className="px-1">
      <input
        autoFocus
        aria-label={label}
        value={words}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={onKey}
        onBlur={() => done(words.trim(), 'elsewhere')}
        className="w-full border-b-2 border-tide bg-paper px-1 outline-none"
      />
    </span>
  );
}
