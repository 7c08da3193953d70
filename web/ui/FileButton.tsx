import { useRef, type ReactNode } from 'react';

interface Props {
  /** Names the field, for programs that fill it themselves. */
  readonly label: string;
  readonly accept: string;
  readonly multiple?: boolean;
  readonly className?: string;
  readonly children: ReactNode;
  /** At least one; the same can be chosen again. */
  onChosen(files: readonly File[]): void;
}

/** Asks for files. */
export function FileButton({ label, accept, multiple = false, className = 'act', children, onChosen }: Props) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className={className} onClick={() => field.current?.click()}>
        {children}
      </button>
      <input
        ref={field}
        type="file"
        hidden
        aria-label={label}
        accept={accept}
        multiple={multiple}
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          target.value = '';
          if (files.length > 0) onChosen(files);
        }}
      />
    </>
  );
}
