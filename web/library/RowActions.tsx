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
export function RowActions({ source, changing, collections, onEdit }: Props) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger aria-label={`More for ${source.title}`} className="ml-auto block text-[13px] text-faint hover:text-ink">more <span aria-hidden="true">▾</span></DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="over max-h-[70vh] min-w-[190px] overflow-y-auto py-1.5 text-[14px]">
          {READING_STATES.map((s) => <DropdownMenu.Item key={s} className="item" onSelect={() => void changing.state([source], s)}><span aria-hidden="true" className="w-3 text-tide">{source.state === s ? '✓' : ''}</span>{STATE_WORDS[s]}</DropdownMenu.Item>)}
          <DropdownMenu.Separator className="my-1 border-t border-rule" />
          <DropdownMenu.Item className="item" onSelect={onEdit}><span className="w-3" />{source.owned ? 'About it, tags…' : 'Tags…'}</DropdownMenu.Item>
          {collections.length > 0 && (
            <DropdownMenu.Sub>
              <DropdownMenu.SubTrigger className="item"><span className="w-3" />Put into <span aria-hidden="true" className="ml-auto text-faint">›</span></DropdownMenu.SubTrigger>
              <DropdownMenu.Portal><DropdownMenu.SubContent className="over max-h-[60vh] min-w-[180px] overflow-y-auto py-1.5 text-[14px]">{collections.map((c) => <DropdownMenu.Item key={c.id} className="item" onSelect={() => void changing.file([source], c)}>{c.name}</DropdownMenu.Item>)}</DropdownMenu.SubContent></DropdownMenu.Portal>
            </DropdownMenu.Sub>
          )}
          {source.owned && <DropdownMenu.Item className="item text-brick" onSelect={() => void changing.remove([source])}><span className="w-3" />Delete</DropdownMenu.Item>}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
