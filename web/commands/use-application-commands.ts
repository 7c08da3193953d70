import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { tinykeys } from 'tinykeys';
import { setTheme, useTheme } from '../theme/use-theme';
import { FIND_FIELD } from '../ui/find-field';
import { useLatest } from '../ui/use-latest';
import { isListOpen, openCommands, useCommandSource, type NamedCommand } from './registry';

/** What the address field of the Library is asked to do by whoever leads there. */
export const TO_KEEP = { keep: true } as const;

interface Entry extends Pick<NamedCommand, 'name' | 'keys' | 'run'> {
  /** In the notation of the key binding library. */
  readonly bindings: readonly string[];
}

/** What can be done wherever one is: by its key, and by its name in the list of commands. */
export function useApplicationCommands(): void {
  const navigate = useNavigate();
  const theme = useTheme();
  const go = (to: string, name: string): Entry => ({
    name: `Go to ${name}`,
    keys: '',
    bindings: [],
    run: () => void navigate(to),
  });
  const entries: readonly Entry[] = [
    {
      name: 'Find in everything',
      keys: '/',
      bindings: ['/', 'Shift+/'],
      run: () => document.getElementById(FIND_FIELD)?.focus(),
    },
    {
      name: 'Keep a page by its address',
      keys: 'k',
      bindings: ['k'],
      run: () => void navigate('/library', { state: TO_KEEP }),
    },
    { name: 'Show all commands and their keys', keys: '?', bindings: ['?', 'Shift+?'], run: openCommands },
    go('/desk', 'the Desk'),
    go('/library', 'the Library'),
    go('/gather', 'Gather: lists, feeds and letters'),
    go('/classes', 'the classes'),
    go('/account', 'your account'),
    {
      name: theme === 'day' ? 'Night theme' : 'Day theme',
      keys: '',
      bindings: [],
      run: () => setTheme(theme === 'day' ? 'night' : 'day'),
    },
  ];
  useCommandSource(
    () => entries.map(({ name, keys, run }) => ({ id: name, name, keys, run, group: 'Everywhere', available: true })),
    { last: true },
  );
  useBindings(entries);
}

function useBindings(entries: readonly Entry[]): void {
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
  event.preventDefault();
  run();
}
