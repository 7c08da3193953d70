import { Popover } from 'radix-ui';
import { useState } from 'react';
import { SourceNavigation } from './SourceNavigation';
import { ViewSwitch, Zoom } from './ViewSwitch';

/** Where there is no room for them side by side: every way about the source, and how it is read. */
export function ReadingMenu() {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="whitespace-nowrap hover:text-ink">
        Read <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={8}
          aria-label="Read"
          className="over flex min-w-[200px] flex-col items-start gap-1 p-4 text-[15px] text-soft [&>*]:min-h-9 pointer-coarse:[&>*]:min-h-11 [&_button]:text-left"
        >
          <SourceNavigation onDone={() => setOpen(false)} />
          <ViewSwitch />
          <Zoom />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
