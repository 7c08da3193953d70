import type { SourceId } from '@avrelle/core/wire';
import { useSuggestedTags } from '../data/queries';

/** Tags of one's own that may belong on a source: each is one press. */
export function SuggestedTags({
  sourceId,
  without,
  onAdd,
}: {
  sourceId: SourceId;
  without: readonly string[];
  onAdd: (tag: string) => void;
}) {
  const tags = (useSuggestedTags(sourceId).data ?? []).filter((t) => !without.includes(t));
  if (tags.length === 0) return null;
  return (
    <p className="flex flex-wrap gap-x-3 text-[13.5px] text-soft">
      Perhaps{' '}
      {tags.map((t) => (
        <button key={t} type="button" className="text-tide hover:underline" onClick={() => onAdd(t)}>
          #{t}
        </button>
      ))}
    </p>
  );
}
