import { useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import type { Kind } from '@avrelle/core/key';
import type { Edge } from '@avrelle/core/text';
import type { PlayerHandle } from '../regions/recording/Player';
import type { OpenPage } from '../document/use-page';

export interface KeyActions {
  selecting(): boolean;
  mark(kind: Kind): void;
  /** Gives the open mark another kind; false where none of mine is open. */
  rekind(kind: Kind): boolean;
  markAgain(): void;
  write(letter: string): void;
  step(direction: 1 | -1): void;
  walk(direction: 1 | -1): void;
  remove(): void;
  undo(): void;
  redo(): void;
  letGo(): void;
  showKeys(): void;
  /** Begins or ends marking an area. */
  area(): void;
  /** Begins or ends drawing. */
  draw(): void;
  /** While one draws: takes the tool of a digit into the hand; false for a key that is none. */
  hold: ((digit: string) => boolean) | undefined;
  /** Opens the search within the source. */
  find(): void;
  /** Turns marking as one selects on or off. */
  markAsISelect(): void;
  /** Shows nothing but the page, or the rest again. */
  focus(): void;
  /** Begins or ends reading aloud. */
  listen(): void;
  /** Takes hold of an end of the open mark. */
  ends(edge: Edge): void;
  /** What plays the recording, where there is one. */
  player(): PlayerHandle | null;
}

/**
 * The reading view's keys, wherever the focus is: on the page in its frame or in the application around it. Each is
 * carried out before the next arrives: React knows nothing of the frame's events and would put their work off.
 */
export function useKeyboard(page: OpenPage | undefined, kinds: readonly Kind[], actions: KeyActions): void {
  const latest = useRef({ actions, kinds });
  useEffect(() => {
    latest.current = { actions, kinds };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || isWriting(event.target)) return;
      if (handle(event, latest.current.actions, latest.current.kinds)) event.preventDefault();
    };
    const inside = page?.adapter.document;
    window.addEventListener('keydown', onKey);
    inside?.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onKey);
      inside?.removeEventListener('keydown', onKey);
    };
  }, [page]);
}

const isWriting = (target: EventTarget | null): boolean => {
  const element = target as HTMLElement | null;
  return Boolean(element?.closest?.('input, textarea, select, [contenteditable], [role=dialog], [role=menu]'));
};

function handle(event: KeyboardEvent, act: KeyActions, kinds: readonly Kind[]): boolean {
  const { key } = event;
  if (event.ctrlKey || event.metaKey) return command(event, act);
  if (event.altKey) return false;
  if (key === ']' || key === '[') return did(() => act.step(key === ']' ? 1 : -1));
  if (key === '.' || key === ',') return did(() => act.walk(key === '.' ? 1 : -1));
  if (key === 'Escape') return did(act.letGo);
  if (key === '?') return did(act.showKeys);
  if (key === 'Delete') return did(act.remove);
  if (act.hold) return whileDrawing(event, act, act.hold);
  return act.selecting() ? onSelection(event, act, kinds) : onPage(event, act, kinds);
}

function command(event: KeyboardEvent, act: KeyActions): boolean {
  const key = event.key.toLowerCase();
  if (key === 'z') return did(event.shiftKey ? act.redo : act.undo);
  return key === 'y' && did(act.redo);
}

function whileDrawing({ key, target }: KeyboardEvent, act: KeyActions, hold: (digit: string) => boolean): boolean {
  if (key === 'd') return did(act.draw);
  if (key === 'Enter') return act.selecting() && !(target as HTMLElement).closest?.('button, a') && did(act.markAgain);
  let held = false;
  flushSync(() => {
    held = hold(key);
  });
  return held;
}

function onPage(event: KeyboardEvent, act: KeyActions, kinds: readonly Kind[]): boolean {
  const { key } = event;
  const kind = kinds[Number(key) - 1];
  if (kind) return did(() => void act.rekind(kind));
  const action = {
    a: act.area,
    d: act.draw,
    f: act.find,
    x: act.markAsISelect,
    z: act.focus,
    l: act.listen,
    g: () => act.ends('end'),
    G: () => act.ends('start'),
  }[key];
  return action === undefined ? onRecording(event, act.player()) : did(action);
}

function onRecording({ key, target }: KeyboardEvent, player: PlayerHandle | null): boolean {
  if (!player || (target as HTMLElement).closest?.('button, a')) return false;
  const action = { ' ': player.toggle, b: player.back, m: player.mark, s: player.stretch }[key];
  return action !== undefined && did(action);
}

function onSelection({ key, target }: KeyboardEvent, act: KeyActions, kinds: readonly Kind[]): boolean {
  const kind = kinds[Number(key) - 1];
  if (kind) return did(() => act.mark(kind));
  if (key === 'Enter') return !(target as HTMLElement).closest?.('button, a') && did(act.markAgain);
  return /^[\p{L}"“‘'(]$/u.test(key) && did(() => act.write(key));
}

function did(action: () => void): true {
  flushSync(action);
  return true;
}
