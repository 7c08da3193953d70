import { createContext, useContext, type RefObject } from 'react';
import type { Drawing } from '../drawing/use-drawing';
import type { Pictures } from '../drawing/use-pictures';
import type { CommandId, Situation } from '../model/commands';
import type { PlayerHandle } from './player-handle';
import type { NoteActions } from './note-actions';
import type { Choosing } from './use-choosing';
import type { Marking } from './use-marking';
import type { Navigation } from './use-navigation';
import type { Placing } from './use-placing';
import type { Progress } from './use-progress';
import type { ReadingAloud } from './use-reading-aloud';

/** What can be done with the document, by whatever way it is asked for. */
export interface ReaderTools {
  readonly marking: Marking;
  readonly placing: Placing;
  readonly navigation: Navigation;
  readonly aloud: ReadingAloud;
  readonly progress: Progress;
  readonly drawing: Drawing;
  readonly pictures: Pictures;
  readonly choosing: Choosing;
  readonly noteActions: NoteActions;
  readonly player: RefObject<PlayerHandle | null>;
  /** Carries out a command; `letter` is the key it was called by, where that matters. */
  run(id: CommandId, letter?: string): void;
  /** Asked when it is needed: keys come faster than React. */
  situation(onControl?: boolean): Situation;
  /** A press on what lies over the page, at a point of the frame. */
  press(x: number, y: number): void;
}

export const ToolsContext = createContext<ReaderTools | undefined>(undefined);

export function useTools(): ReaderTools {
  const tools = useContext(ToolsContext);
  if (!tools) throw new Error('A part of the reading view stands outside of a ToolsProvider.');
  return tools;
}
