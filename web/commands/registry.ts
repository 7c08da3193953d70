import { useEffect } from 'react';
import { create } from 'zustand';
import { useLatest } from '../ui/use-latest';

/** Something that can be done by its name. */
export interface NamedCommand {
  readonly id: string;
  readonly name: string;
  readonly group: string;
  /** As it is written on a keyboard; empty where no key does it. */
  readonly keys: string;
  /** False where it means nothing just now. */
  readonly available: boolean;
  run(): void;
}

type Source = () => readonly NamedCommand[];

interface CommandList {
  readonly open: boolean;
  /** What offers commands now: the application itself, and the page that is shown. */
  readonly sources: readonly Source[];
}

export const useCommandList = create<CommandList>(() => ({ open: false, sources: [] }));

export const openCommands = (): void => useCommandList.setState({ open: true });
/** While the list is there, or on its way, letters are meant for it. */
export const isListOpen = (): boolean => useCommandList.getState().open;
export const closeCommands = (): void => useCommandList.setState({ open: false });

/** Offers commands while a part of the application stands; they are asked for when somebody looks. `last`: below those of a page. */
export function useCommandSource(source: Source, { last = false }: { readonly last?: boolean } = {}): void {
  const latest = useLatest(source);
  useEffect(() => {
    const asked: Source = () => latest.current();
    useCommandList.setState(({ sources }) => ({ sources: last ? [...sources, asked] : [asked, ...sources] }));
    return () => useCommandList.setState(({ sources }) => ({ sources: sources.filter((s) => s !== asked) }));
  }, [latest, last]);
}
