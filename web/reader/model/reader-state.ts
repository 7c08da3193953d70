import type { Spot } from '@avrelle/core/anchor';
import type { Kind } from '@avrelle/core/legend';
import type { SourceKind } from '@avrelle/core/wire';
import type { StreamRange } from '../../page/page-frame';
import type { Filter, Order } from './thread';

/** The main text in our typography, or the document as it was kept. */
export type View = 'main' | 'kept';

/** What the pointer does on the page: selects words, marks areas, or draws. */
export type Tool = 'read' | 'area' | 'draw';

/** A note that is being written and is not saved. */
export interface Draft {
  readonly range: StreamRange;
  /** The words of the range. */
  readonly exact: string;
  readonly spot?: Spot;
  readonly note: string;
  readonly kind: Kind;
}

/** What is written in the form of a note. */
export interface NoteValues {
  readonly kind: Kind;
  readonly note: string;
  readonly tags: readonly string[];
}

/** What of the page is in the window, in pixels as shown. */
export interface Scroll {
  readonly top: number;
  readonly height: number;
}

export type ReaderDialog = 'legend' | 'card';

/** What a reader has chosen on the screen; nothing of it is kept on the server. */
export interface ReaderState {
  readonly view: View;
  readonly tool: Tool;
  /** Whatever is selected is marked at once. */
  readonly markOnSelect: boolean;
  /** Nothing but the page. */
  readonly focusMode: boolean;
  readonly finding: boolean;
  readonly listening: boolean;
  readonly dialog: ReaderDialog | undefined;
  /** Annotations whose notes stand open. */
  readonly expanded: ReadonlySet<string>;
  /** The annotation at hand: keys act on it while it is expanded. */
  readonly current: string | undefined;
  readonly filter: Filter;
  readonly order: Order;
  readonly draft: Draft | undefined;
  /** Annotations chosen to be changed together; undefined while nobody chooses. */
  readonly chosen: ReadonlySet<string> | undefined;
  /** The annotation its author is showing a place for. */
  readonly placing: string | undefined;
  readonly scroll: Scroll;
}

export type ReaderAction =
  | { readonly type: 'view'; readonly view: View }
  /** Taking the tool that is at hand lays it down. */
  | { readonly type: 'tool'; readonly tool: Tool }
  | { readonly type: 'mark on select' }
  | { readonly type: 'focus mode'; readonly on: boolean }
  | { readonly type: 'find'; readonly on: boolean }
  | { readonly type: 'listen'; readonly on: boolean }
  | { readonly type: 'dialog'; readonly dialog: ReaderDialog | undefined }
  | { readonly type: 'expand'; readonly id: string }
  | { readonly type: 'toggle'; readonly id: string }
  /** A press on the page: opens what was hit, or lets go of what was at hand. */
  | { readonly type: 'press'; readonly hit: string | undefined }
  | { readonly type: 'filter'; readonly filter: Filter }
  | { readonly type: 'order'; readonly order: Order }
  | { readonly type: 'draft'; readonly draft: Draft | undefined }
  | { readonly type: 'choose'; readonly chosen: ReadonlySet<string> | undefined }
  | { readonly type: 'toggle chosen'; readonly id: string }
  | { readonly type: 'place'; readonly id: string | undefined }
  | { readonly type: 'scroll'; readonly scroll: Scroll; readonly pageHeight: number }
  | { readonly type: 'escape' };

const NONE: ReadonlySet<string> = new Set();

/** A reader who has just come. Pages of a PDF are shown as pages where there is room for them. */
export const initialState = (kind: SourceKind, wide: boolean): ReaderState => ({
  view: kind === 'pdf' && wide ? 'kept' : 'main',
  tool: 'read',
  markOnSelect: false,
  focusMode: false,
  finding: false,
  listening: false,
  dialog: undefined,
  expanded: NONE,
  current: undefined,
  filter: { whose: 'all' },
  order: 'place',
  draft: undefined,
  chosen: undefined,
  placing: undefined,
  scroll: { top: 0, height: 600 },
});

/** The annotation at hand, where its note stands open. */
export const openIn = ({ current, expanded }: ReaderState): string | undefined =>
  current !== undefined && expanded.has(current) ? current : undefined;

/** The state after an action. What changes nothing gives the very same state, so that nobody is told. */
export function reduce(state: ReaderState, action: ReaderAction): ReaderState {
  switch (action.type) {
    case 'view':
      return { ...state, view: action.view };
    case 'tool':
      return { ...state, tool: state.tool === action.tool ? 'read' : action.tool };
    case 'mark on select':
      return { ...state, markOnSelect: !state.markOnSelect };
    case 'focus mode':
      return { ...state, focusMode: action.on };
    case 'find':
      return { ...state, finding: action.on };
    case 'listen':
      return { ...state, listening: action.on };
    case 'dialog':
      return { ...state, dialog: action.dialog };
    case 'filter':
      return { ...state, filter: action.filter };
    case 'order':
      return { ...state, order: action.order };
    case 'choose':
      return { ...state, chosen: action.chosen };
    case 'place':
      return { ...state, placing: action.id };
    // What hides the margin gives way to writing.
    case 'draft':
      return { ...state, draft: action.draft, focusMode: state.focusMode && action.draft === undefined };
    case 'expand':
      return { ...state, expanded: withId(state.expanded, action.id), current: action.id };
    case 'toggle':
      return { ...state, expanded: toggled(state.expanded, action.id), current: action.id };
    case 'press':
      return pressed(state, action.hit);
    case 'toggle chosen':
      return { ...state, chosen: toggled(state.chosen ?? NONE, action.id) };
    case 'scroll':
      return isWorthTelling(state.scroll, action) ? { ...state, scroll: action.scroll } : state;
    case 'escape':
      return {
        ...state,
        tool: 'read',
        focusMode: false,
        placing: undefined,
        chosen: undefined,
        expanded: NONE,
        current: undefined,
      };
  }
}

function pressed(state: ReaderState, hit: string | undefined): ReaderState {
  if (hit === undefined) return state.current === undefined ? state : { ...state, current: undefined };
  return { ...state, expanded: withId(state.expanded, hit), current: hit };
}

const withId = (ids: ReadonlySet<string>, id: string): ReadonlySet<string> =>
  ids.has(id) ? ids : new Set([...ids, id]);

function toggled(ids: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const after = new Set(ids);
  if (!after.delete(id)) after.add(id);
  return after;
}

/** Moves too small to see on the minimap, and within what is drawn ahead, are passed over. */
function isWorthTelling(before: Scroll, { scroll: { top, height }, pageHeight }: ScrollAction): boolean {
  return before.height !== height || Math.abs(top - before.top) >= Math.min(height / 3, pageHeight / 1_000);
}

type ScrollAction = Extract<ReaderAction, { type: 'scroll' }>;
