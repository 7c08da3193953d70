import type { NamedCommand } from '../../commands/registry';
import { COMMAND_IDS, commandOf, isAvailable, keyWords } from '../model/commands';
import type { ReaderTools } from './tools-context';

/** The commands of the reading view by their names. Those that take a letter or digit are only told of, with their keys. */
export function named({ run, situation }: Pick<ReaderTools, 'run' | 'situation'>): readonly NamedCommand[] {
  const now = situation();
  return COMMAND_IDS.filter((id) => id !== 'commands').map((id) => {
    const { name, group, keyWords: letters } = commandOf(id);
    return {
      id,
      name,
      group,
      keys: keyWords(id),
      available: (letters === undefined || id === 'write') && isAvailable(id, now),
      run: () => run(id),
    };
  });
}
