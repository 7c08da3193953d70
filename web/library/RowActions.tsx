import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { READING_STATES, STATE_WORDS, type CollectionRow, type SourceRow } from '@avrelle/core/wire';
import type { Changing } from './use-changing';

interface Props {
  readonly source: SourceRow;
  readonly changing: Changing;
  /** Collections one may add to. */
  readonly collections: readonly CollectionRow[];
  onEdit(): void;
}

/** What can be done with one source of a list. */
export function RowActions(props: Props) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={`More for ${props.source.title}`}
        className="ml-auto block text-[13px] text-faint hover:text-ink"
      >
        more <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <ShelfItems {...props} />
    </DropdownMenu.Root>
  );
}

/**
 * State, facts and tags, collections, deleting. `holding`: the collections it is in, where that is known; then it can be
 * taken out of them, too. `children`: further items.
 */
export function ShelfItems({
  source,
  changing,
  collections,
  holding,
  onEdit,
  onDeleted,
  children,
}: Props & { readonly holding?: readonly string[]; readonly children?: ReactNode; onDeleted?(): void }) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="end"
        sideOffset={4}
        className="over max-h-[70vh] min-w-[190px] overflow-y-auto py-1.5 text-[14px]"
      >
        {READING_STATES.map((s) => (
          <DropdownMenu.Item key={s} className="item" onSelect={() => void changing.state([source], s)}>
            <Mark on={source.state === s} />
            {STATE_WORDS[s]}
          </DropdownMenu.Item>
        ))}
        <DropdownMenu.Separator className="my-1 border-t border-rule" />
        <DropdownMenu.Item className="item" onSelect={onEdit}>
          <Mark />
          {source.owned ? 'About it, tags…' : 'Tags…'}
        </DropdownMenu.Item>
        {children}
        {collections.length > 0 && (
          <DropdownMenu.Sub>
            <DropdownMenu.SubTrigger className="item">
              <Mark />
              Put into{' '}
              <span aria-hidden="true" className="ml-auto text-faint">
                ›
              </span>
            </DropdownMenu.SubTrigger>
            <DropdownMenu.Portal>
              <DropdownMenu.SubContent className="over max-h-[60vh] min-w-[180px] overflow-y-auto py-1.5 text-[14px]">
                {collections.map((c) =>
                  holding ? (
                    <DropdownMenu.CheckboxItem
                      key={c.id}
                      className="item"
                      checked={holding.includes(c.id)}
                      onCheckedChange={(adds) => void changing.file([source], c, adds)}
                    >
                      <Mark on={holding.includes(c.id)} />
                      {c.name}
                    </DropdownMenu.CheckboxItem>
                  ) : (
                    <DropdownMenu.Item key={c.id} className="item" onSelect={() => void changing.file([source], c)}>
                      {c.name}
                    </DropdownMenu.Item>
                  ),
                )}
              </DropdownMenu.SubContent>
            </DropdownMenu.Portal>
          </DropdownMenu.Sub>
        )}
        {source.owned && (
          <DropdownMenu.Item
            className="item text-brick"
            onSelect={() => void changing.remove([source]).then((held) => held && onDeleted?.())}
          >
            <Mark />
            Delete
          </DropdownMenu.Item>
        )}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

const Mark = ({ on = false }: { on?: boolean }) => (
  <span aria-hidden="true" className="w-3 text-tide">
    {on ? '✓' : ''}
  </span>
);
