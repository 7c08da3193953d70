import { parseQuery } from '@avrelle/core/query';

interface Props {
  /** As it is typed, which cannot be read. */
  readonly q: string;
  /** The last search that could be, whose answer is shown. */
  readonly asked: string;
  onMend(q: string): void;
}

/** Beside an answer to an earlier search: why the one that is typed has none yet. */
export function StillShown({ q, asked, onMend }: Props) {
  const parsed = parseQuery(q);
  const error = parsed.ok ? undefined : parsed.error;
  return (
    <span role="status" className="text-brick">
      {error?.message}{' '}
      {error?.mend !== undefined && (
        <button className="act" onClick={() => onMend(error.mend!)}>
          Make it {error.mend === '' ? 'empty' : error.mend}
        </button>
      )}{' '}
      {asked ? (
        <>
          Still shown: <span className="font-mono text-[13px]">{asked}</span>
        </>
      ) : (
        'Still shown: everything'
      )}
    </span>
  );
}
