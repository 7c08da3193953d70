import { useNavigate } from 'react-router';
import { setTheme, useTheme } from '../theme/use-theme';
import { FIND_FIELD } from '../ui/find-field';
import { openCommands } from './registry';
import { useKeyCommands, type KeyCommand } from './use-key-commands';

/** What the address field of the Library is asked to do by whoever leads there. */
export const TO_KEEP = { keep: true } as const;

/** What can be done wherever one is: by its key, and by its name in the list of commands. */
export function useApplicationCommands(): void {
  const navigate = useNavigate();
  const theme = useTheme();
  const go = (to: string, name: string): KeyCommand => ({
    name: `Go to ${name}`,
    keys: '',
    bindings: [],
    run: () => void navigate(to),
  });
  const entries: readonly KeyCommand[] = [
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
    go('/notes', 'the notes'),
    go('/review', 'Review'),
    go('/notifications', 'notifications'),
    go('/account', 'your account'),
    {
      name: theme === 'day' ? 'Night theme' : 'Day theme',
      keys: '',
      bindings: [],
      run: () => setTheme(theme === 'day' ? 'night' : 'day'),
    },
  ];
  useKeyCommands('Everywhere', entries, { last: true });
}
