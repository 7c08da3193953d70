import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';

/** A menu under words in a line of them; its items are Radix DropdownMenu items. */
export function Menu({ words, children }: { words: string; children: ReactNode }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="text-soft hover:text-ink">
        {words} <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={6}
          className="over max-h-[60vh] min-w-[160px] overflow-y-auto py-1.5 text-[14px]"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
