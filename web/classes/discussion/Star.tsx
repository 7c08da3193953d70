interface Props {
  readonly starred: boolean;
  /** The words of what it is about, for who does not see where it stands. */
  readonly about: string;
  onChange(starred: boolean): void;
}

/** What I want to find again in a discussion; nobody else sees it. */
export function Star({ starred, about, onChange }: Props) {
  const colour = starred ? 'text-brick' : 'text-faint hover:text-ink';
  return (
    <button
      aria-pressed={starred}
      aria-label={`Star: ${about.slice(0, 60)}`}
      title={starred ? 'Take my star off' : 'Give it a star, for me alone'}
      onClick={() => onChange(!starred)}
      className={`grid min-w-[44px] place-items-center self-stretch text-[18px] ${colour}`}
    >
      <span aria-hidden="true">{starred ? '★' : '☆'}</span>
    </button>
  );
}
