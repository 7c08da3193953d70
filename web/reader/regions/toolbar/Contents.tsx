import { DropdownMenu } from 'radix-ui';
import { placeName, type Block, type Outline } from '@avrelle/core/text';

/** More headings than this are those of a page gone wrong; the menu shows the first. */
const MOST = 400;

/** The headings of a source, each leading to its place; pages and times stand beside them. */
export function Contents({ text, outline, onGo }: { text: string; outline: Outline; onGo: (block: Block) => void }) {
  const headings = outline.filter((block) => block.role === 'heading' && !block.aside).slice(0, MOST);
  const outer = Math.min(...headings.map((h) => h.level ?? 1));
  if (headings.length < 2) return null;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="whitespace-nowrap hover:text-ink">
        Contents <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={8}
          className="over max-h-[70vh] w-[380px] max-w-[94vw] overflow-y-auto py-1.5 text-[14px]"
        >
          {headings.map((block) => (
            <DropdownMenu.Item
              key={block.start}
              className="item"
              style={{ paddingLeft: 14 + 16 * ((block.level ?? 1) - outer) }}
              onSelect={() => onGo(block)}
            >
              <span className="min-w-0 flex-1 truncate font-read">{text.slice(block.start, block.end)}</span>
              <span className="pl-3 text-[13px] text-faint">{placeName(block.locator)}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
