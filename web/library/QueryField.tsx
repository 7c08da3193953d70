import { Suspense, useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { completionAt, parseQuery, type KnownValues } from '@avrelle/core/query';
import { KIND_WORDS } from '@avrelle/core/wire';
import { useClasses, useLegends, useOutline } from '../data/queries';
import { lazily } from '../ui/lazily';
import { useReadable } from './use-readable';

const QueryFault = lazily(() => import('./QueryFault'));

const PAUSE = 180;
/** What fields can be asked for beside tags, collections and classes. */
const TYPES = [...new Set(Object.values(KIND_WORDS))];

interface Props {
  readonly value: string;
  onChange(q: string): void;
  readonly label: string;
  readonly placeholder: string;
}

/** What is typed, searched a moment after the last key; what is chosen elsewhere is written here. */
function useTyped({ value, onChange }: Props) {
  const [typed, setTyped] = useState(value);
  const sent = useRef(value);
  const parsed = useMemo(() => parseQuery(typed), [typed]);
  useEffect(() => {
    if (value !== sent.current) {
      sent.current = value;
      setTyped(value);
    }
  }, [value]);
  const send = (): void => {
    sent.current = typed.trim();
    onChange(typed.trim());
  };
  useEffect(() => {
    if (typed.trim() === sent.current.trim() || !parsed.ok) return;
    const timer = setTimeout(() => {
      sent.current = typed.trim();
      onChange(typed.trim());
    }, PAUSE);
    return () => clearTimeout(timer);
  }, [typed, parsed, onChange]);
  return { typed, setTyped, parsed, send, isSent: () => typed.trim() === sent.current };
}

/** A search as it is typed: completed as one goes, and where it cannot be read, told where and how it could be. */
export function QueryField(props: Props) {
  const { value, label, placeholder } = props;
  const { typed, setTyped, parsed, send, isSent } = useTyped(props);
  const [caret, setCaret] = useState<number>();
  const [at, setAt] = useState(0);
  const [shut, setShut] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const known = useKnown();
  const id = useId();
  const shown = useReadable(value).asked;
  const found = caret === undefined || shut ? undefined : completionAt(typed, caret, known);
  const write = (text: string): void => {
    setTyped(text);
    setAt(0);
    setShut(false);
  };
  const writeAndGo = (text: string, to = text.length): void => {
    write(text);
    requestAnimationFrame(() => {
      input.current?.setSelectionRange(to, to);
      setCaret(to);
    });
  };
  const take = (n: number): void => {
    const option = found?.options[n];
    if (!found || !option) return;
    const { from, to } = found;
    writeAndGo(typed.slice(0, from) + option.insert + typed.slice(to), from + option.insert.length);
  };
  const onKeyDown = keysOf({
    count: found?.options.length ?? 0,
    step: (by) => setAt((at + by + found!.options.length) % found!.options.length),
    take: () => take(at),
    enter: () => {
      if (!parsed.ok) return;
      setShut(true);
      send();
    },
    shut: () => setShut(true),
    leave: () => input.current?.blur(),
  });
  return (
    <div className="relative min-w-0 max-w-[560px] flex-1">
      <input
        ref={input}
        type="search"
        role="combobox"
        aria-label={label}
        aria-expanded={Boolean(found)}
        aria-controls={id}
        aria-activedescendant={found ? `${id}-${at}` : undefined}
        aria-invalid={!parsed.ok || undefined}
        aria-describedby={parsed.ok ? undefined : `${id}-wrong`}
        autoComplete="off"
        spellCheck={false}
        value={typed}
        placeholder={placeholder}
        className="field"
        onKeyDown={onKeyDown}
        onChange={(e) => {
          write(e.target.value);
          setCaret(e.target.selectionStart ?? undefined);
        }}
        onSelect={(e) => setCaret(e.currentTarget.selectionStart ?? undefined)}
        onBlur={() => {
          setCaret(undefined);
          // Whoever shows the answer says what is wrong, and lies over nothing.
          if (!parsed.ok && !isSent()) send();
        }}
      />
      <Suggestions id={id} options={found?.options} at={at} onAt={setAt} onTake={take} />
      {!parsed.ok && caret !== undefined && !found && (
        <Suspense>
          <QueryFault id={`${id}-wrong`} typed={typed} error={parsed.error} shown={shown} onMend={writeAndGo} />
        </Suspense>
      )}
    </div>
  );
}

interface Keys {
  /** How many suggestions there are. */
  readonly count: number;
  step(by: 1 | -1): void;
  take(): void;
  enter(): void;
  shut(): void;
  leave(): void;
}

const keysOf =
  ({ count, step, take, enter, shut, leave }: Keys) =>
  (event: KeyboardEvent): void => {
    const { key } = event;
    if (key === 'Escape') {
      event.stopPropagation();
      return count ? shut() : leave();
    }
    const by = ({ ArrowDown: 1, ArrowUp: -1 } as const)[key];
    const act = key === 'Enter' ? enter : suggested();
    if (!act) return;
    event.preventDefault();
    act();

    function suggested(): (() => void) | undefined {
      if (count === 0) return undefined;
      if (by) return () => step(by);
      return key === 'Tab' && !event.shiftKey ? take : undefined;
    }
  };

interface SuggestionsProps {
  readonly id: string;
  readonly options: readonly { readonly label: string }[] | undefined;
  readonly at: number;
  onAt(at: number): void;
  onTake(at: number): void;
}

function Suggestions({ id, options, at, onAt, onTake }: SuggestionsProps) {
  return (
    <ul
      id={id}
      role="listbox"
      aria-label="Suggestions"
      hidden={!options}
      className="over absolute left-0 top-full mt-1 min-w-[220px] py-1 text-[14px]"
    >
      {options?.map((option, n) => (
        <li
          key={option.label}
          id={`${id}-${n}`}
          role="option"
          aria-selected={n === at}
          data-highlighted={n === at || undefined}
          className="item"
          onMouseDown={(e) => {
            e.preventDefault();
            onTake(n);
          }}
          onMouseMove={() => onAt(n)}
        >
          {option.label}
        </li>
      ))}
      {options && (
        <li aria-hidden="true" className="px-3.5 pt-1 text-[12.5px] text-faint">
          Tab takes it
        </li>
      )}
    </ul>
  );
}

/** What a search can ask for, of what there is. */
export function useKnown(): KnownValues {
  const outline = useOutline().data;
  const classes = useClasses().data;
  const own = useLegends().data;
  return useMemo(
    () => ({
      tag: outline?.tags.map((t) => t.tag) ?? [],
      in: [...new Set([...(outline?.collections.map((c) => c.name) ?? []), ...(classes?.map((c) => c.name) ?? [])])],
      type: TYPES,
      kind: [...new Set((own?.mine.kinds ?? []).map((k) => k.name.toLowerCase()))],
    }),
    [outline, classes, own],
  );
}
