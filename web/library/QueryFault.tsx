import type { QueryError } from '@avrelle/core/query';

interface Props {
  readonly id: string;
  readonly typed: string;
  readonly error: QueryError;
  /** The search whose answer is still there. */
  readonly shown: string;
  onMend(text: string): void;
}

/** Where the fault is, why, and the search as it was probably meant. */
export default function QueryFault({ id, typed, error, shown, onMend }: Props) {
  return (
    <div
      id={id}
      role="status"
      className="over absolute left-0 top-full mt-1 w-max max-w-[min(560px,92vw)] border-l-[3px] border-l-brick px-3 py-2 text-[14px]"
    >
      <p className="font-mono text-[13.5px]">
        {typed.slice(0, error.start)}
        <mark className="bg-transparent font-semibold text-brick underline decoration-wavy underline-offset-4">
          {typed.slice(error.start, error.end) || '␣'}
        </mark>
        {typed.slice(error.end)}
      </p>
      <p className="mt-1 text-soft">{error.message}</p>
      {shown !== typed && (
        <p className="mt-1 text-soft">
          Until then you see the answer to{' '}
          {shown ? <span className="font-mono text-[13.5px]">{shown}</span> : 'no search: everything'}.
        </p>
      )}
      {error.mend !== undefined && (
        <button className="act mt-1" onMouseDown={(e) => e.preventDefault()} onClick={() => onMend(error.mend!)}>
          Make it {error.mend === '' ? 'empty' : error.mend}
        </button>
      )}
    </div>
  );
}
