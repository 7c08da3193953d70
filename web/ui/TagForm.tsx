import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Popover } from 'radix-ui';
import { tagsIn } from '../gather/tags-in';

/** Tags for all that is chosen: added by writing them, and where those they bear are given, taken away. */
export function TagForm({
  tags = [],
  onAdd,
  onTake,
}: {
  tags?: readonly string[];
  onAdd: (tags: readonly string[]) => void;
  onTake?: (tag: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const { register, reset, handleSubmit } = useForm({ defaultValues: { words: '' } });
  const submit = handleSubmit(({ words }) => {
    const added = tagsIn(words);
    if (added.length === 0) return;
    onAdd(added);
    reset();
    setOpen(false);
  });
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-soft hover:text-ink">
        Tags <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content aria-label="Add tags" align="start" sideOffset={6} className="over w-[260px] p-3 text-[14px]">
          <form onSubmit={submit} className="flex gap-3">
            <input
              {...register('words')}
              aria-label="Tags to add"
              autoFocus
              placeholder="#essay #accretion"
              className="field"
            />
            <button className="act">Add</button>
          </form>
          {tags.length > 0 && (
            <ul className="mt-2 flex max-h-[30vh] flex-wrap gap-x-3 overflow-y-auto">
              {tags.map((t) => (
                <li key={t} className="text-tide">
                  #{t}{' '}
                  <button
                    aria-label={`Take #${t} away`}
                    className="text-faint hover:text-brick"
                    onClick={() => {
                      onTake?.(t);
                      setOpen(false);
                    }}
                  >
                    ×
                  </button>
                </li>
              ))}
            </ul>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
