import { useRef, type ReactNode } from 'react';
import type { AnnotationId } from '@avrelle/core/wire';
import { useClicks } from '../document/use-clicks';
import { useDocument } from '../document/document-context';
import { useDrawing } from '../drawing/use-drawing';
import { usePictures } from '../drawing/use-pictures';
import type { PlayerHandle } from './player-handle';
import { useNoteActions } from './note-actions';
import { useReader } from './reader-context';
import { ToolsContext } from './tools-context';
import { useArrival } from './use-arrival';
import { useChoosing } from './use-choosing';
import { useCommands } from './use-commands';
import { useCommandSource } from '../../commands/registry';
import { named } from './named-commands';
import { useKeyboard } from './use-keyboard';
import { useMarkOnSelect } from './use-mark-on-select';
import { useMarking } from './use-marking';
import { useNavigation } from './use-navigation';
import { usePlacing } from './use-placing';
import { useSeenMarks } from './use-seen-marks';
import { useProgress } from './use-progress';
import { useReadingAloud } from './use-reading-aloud';

interface Props {
  /** It is only shown: keys and selecting change nothing. Where, unless somebody else says. */
  readonly shown?: { readonly at: AnnotationId | null };
  readonly children: ReactNode;
}

/** What can be done with the document: by keys, by a press on the page, and for all parts of the reading view. */
export function ToolsProvider({ shown, children }: Props) {
  const { page } = useDocument();
  const markOnSelect = useReader((s) => s.markOnSelect);
  const player = useRef<PlayerHandle>(null);
  const placing = usePlacing();
  const marking = useMarking(placing);
  const navigation = useNavigation();
  const aloud = useReadingAloud();
  const progress = useProgress();
  useSeenMarks();
  const drawing = useDrawing();
  const pictures = usePictures();
  const choosing = useChoosing();
  const noteActions = useNoteActions({ placing, navigation, pictures, player });
  const tools = { marking, placing, navigation, aloud, progress, drawing, pictures, choosing, noteActions, player };
  const commands = useCommands(tools);
  const press = useClicks();
  const isShown = shown !== undefined;
  useMarkOnSelect(page, markOnSelect && !isShown, marking.markAgain);
  useArrival(shown?.at);
  useKeyboard(commands, isShown);
  useCommandSource(() => (isShown ? [] : named(commands)));
  return <ToolsContext.Provider value={{ ...tools, ...commands, press }}>{children}</ToolsContext.Provider>;
}
