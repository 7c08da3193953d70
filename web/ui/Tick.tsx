interface Props {
  /** Names what is chosen, for who does not see where it stands. */
  readonly label: string;
  readonly checked: boolean;
  onChange(): void;
  /** Where rows are gone through by keys of their own. */
  readonly isSkipped?: boolean;
  readonly className?: string;
}

/** A box that is there while its row is pointed at, or by keys; always where nothing points. */
export const SHOWN_WHEN_NEAR =
  'opacity-0 has-focus-visible:opacity-100 group-hover:opacity-100 [@media(hover:none)]:opacity-100';

/** A box to choose a row by, with as much room around it as a finger needs. */
export function Tick({ label, checked, onChange, isSkipped = false, className = '' }: Props) {
  return (
    <label
      className={`inline-grid place-items-center pointer-coarse:min-h-[44px] pointer-coarse:min-w-[44px] ${className}`}
    >
      <input
        type="checkbox"
        aria-label={label}
        checked={checked}
        onChange={onChange}
        className="accent-[var(--tide)]"
        {...(isSkipped ? { tabIndex: -1 } : {})}
      />
    </label>
  );
}
