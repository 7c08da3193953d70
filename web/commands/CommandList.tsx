import { useRef, useState } from 'react';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { closeCommands, useCommandList, type NamedCommand } from './registry';

/** All that can be done, by its name: found by typing, done by Enter, each with its key. */
export default function CommandList() {
  const sources = useCommandList((s) => s.sources);
  /** As things stood when the list was opened: what is selected on a page stays so. */
  const [commands] = useState(() => sources.flatMap((source) => source()));
  const chosen = useRef<NamedCommand>(undefined);
  const groups = [...new Set(commands.map((c) => c.group))];
  return (
    <Dialog.Root open onOpenChange={(open) => !open && closeCommands()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="over fixed left-1/2 top-[12vh] z-50 flex max-h-[76vh] w-[560px] max-w-[94vw] -translate-x-1/2 flex-col"
          // Only once the focus is back where it was: what is done may move it.
          onCloseAutoFocus={() => setTimeout(() => chosen.current?.run())}
        >
          <Dialog.Title className="px-5 pt-4 text-[20px]">Commands and keys</Dialog.Title>
          <Command className="flex min-h-0 flex-col" loop>
            <Command.Input
              autoFocus
              placeholder="What do you want to do?"
              aria-label="What do you want to do?"
              className="field mx-5 my-2 !w-auto"
            />
            <Command.List className="min-h-0 overflow-y-auto px-2 pb-3">
              <Command.Empty className="px-3 py-4 text-soft">Nothing is called that. Try another word.</Command.Empty>
              {groups.map((group) => (
                <Command.Group
                  key={group}
                  heading={group}
                  className="pb-1 [&>[cmdk-group-heading]]:px-3 [&>[cmdk-group-heading]]:pb-0.5 [&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:text-[13px] [&>[cmdk-group-heading]]:text-faint"
                >
                  {commands
                    .filter((c) => c.group === group)
                    .map((command) => (
                      <Item
                        key={command.id}
                        command={command}
                        onChoose={() => {
                          chosen.current = command;
                          closeCommands();
                        }}
                      />
                    ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** One that means nothing just now stands there with its key all the same: so it is learnt. */
function Item({ command, onChoose }: { readonly command: NamedCommand; readonly onChoose: () => void }) {
  const { id, name, keys, available } = command;
  return (
    <Command.Item
      value={`${id} ${name}`}
      disabled={!available}
      onSelect={onChoose}
      className="flex cursor-pointer items-baseline gap-4 px-3 py-1.5 text-[15px] data-[disabled=true]:cursor-default data-[selected=true]:bg-wash data-[disabled=true]:text-faint"
    >
      <span className="flex-1">{name}</span>
      {keys && (
        <kbd className="whitespace-nowrap border border-rule px-1.5 font-ui text-[12.5px] text-soft">{keys}</kbd>
      )}
    </Command.Item>
  );
}
