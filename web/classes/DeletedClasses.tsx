import { useQueryClient } from '@tanstack/react-query';
import { useDeletedClasses } from '../data/queries';
import { useWrite } from '../data/use-write';
import { Tint } from '../ui/Tint';
import { day } from '../ui/when';

/** Classes that one taught and that were deleted, for as long as they can be brought back. */
export function DeletedClasses() {
  const deleted = useDeletedClasses();
  const client = useQueryClient();
  const restore = useWrite('POST /api/classes/:id/restore');
  if (!deleted.data || deleted.data.length === 0) return null;
  const bringBack = (id: string): void => restore.run({ params: { id } }, () => void client.invalidateQueries());
  return (
    <section aria-label="Deleted classes" className="px-[30px] py-5 max-[900px]:px-4">
      <h2 className="text-[15px] text-soft">Deleted, to be brought back within thirty days</h2>
      <ul>
        {deleted.data.map(({ id, name, tint, deletedAt }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2">
            <Tint tint={tint}>{name}</Tint>
            <span className="text-[14px] text-soft">deleted {day(deletedAt)}</span>
            <button className="act ml-auto text-[14px]" onClick={() => bringBack(id)}>
              Bring back<span className="sr-only"> {name}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
