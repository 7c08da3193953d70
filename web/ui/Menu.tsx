import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';

interface Props {
  readonly words: string;
  /** What it is about, for who does not see where it stands. */
  readonly about?: string;
  readonly children: ReactNode;
}

/** A menu under words in a line of them; its items are Radix DropdownMenu items. */
export function Menu({ words, about, children }: Props) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="whitespace-nowrap text-soft hover:text-ink">
        {words}
        {about && <span className="sr-only"> {about}</span>} <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={6}
          collisionPadding={8}
          className="over max-h-[60vh] min-w-[160px] overflow-y-auto py-1.5 text-[14px]"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
