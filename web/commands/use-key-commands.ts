import { useEffect } from 'react';
import { tinykeys } from 'tinykeys';
import { useLatest } from '../ui/use-latest';
import { isListOpen, useCommandSource, type NamedCommand } from './registry';

export interface KeyCommand extends Pick<NamedCommand, 'name' | 'keys' | 'run'> {
  /** In the notation of the key binding library. */
  readonly bindings: readonly string[];
}

/** Commands of a page or the whole application: by their keys, and by their names in the list. `last`: below others. */
export function useKeyCommands(group: string, entries: readonly KeyCommand[], { last = false } = {}): void {
  useCommandSource(
    () => entries.map(({ name, keys, run }) => ({ id: name, name, keys, run, group, available: true })),
    { last },
  );
  useBindings(entries);
}

function useBindings(entries: readonly KeyCommand[]): void {
  const latest = useLatest(entries);
  useEffect(() => {
    const bound = latest.current.flatMap(({ bindings }, at) =>
      bindings.map((binding) => [binding, (event: KeyboardEvent) => press(event, () => latest.current[at]!.run())]),
    );
    return tinykeys(window, Object.fromEntries(bound) as Parameters<typeof tinykeys>[1]);
  }, [latest]);
}

/** Where keys are somebody else's: who writes, chooses from a menu or answers a dialog is not taken away. */
const ELSEWHERE = 'input, textarea, select, [contenteditable], [role=menu], [role=dialog], [role=alertdialog]';

/** A key that a page has a use for means nothing here: pages listen on the document, and hear first. */
function press(event: KeyboardEvent, run: () => void): void {
  const target = event.target as HTMLElement | null;
  if (event.defaultPrevented || isListOpen() || target?.closest?.(ELSEWHERE)) return;
  // On a button it presses that.
  if (event.key === ' ' && target?.closest?.('button, a, summary')) return;
  event.preventDefault();
  run();
}
