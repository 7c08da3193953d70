import { useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import { KEY, type KindCode } from '@avrelle/core/key';
import type { OpenPage } from './use-page';

export interface KeyActions {
  selecting(): boolean;
  mark(kind: KindCode): void;
  markAgain(): void;
  write(letter: string): void;
  step(direction: 1 | -1): void;
  walk(direction: 1 | -1): void;
  remove(): void;
  undo(): void;
  redo(): void;
  letGo(): void;
  showKeys(): void;
}

/**
 * The reading view's keys, wherever the focus is: on the page in its frame or in the application around it. Each is
 * carried out before the next arrives: React knows nothing of the frame's events and would put their work off.
 */
export function useKeyboard(page: OpenPage | undefined, actions: KeyActions): void {
  const latest = useRef(actions);
  useEffect(() => { latest.current = actions; });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || isWriting(event.target)) return;
      if (handle(event, latest.current)) event.preventDefault();
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

function handle(event: KeyboardEvent, act: KeyActions): boolean {
  const { key } = event;
  if (event.ctrlKey || event.metaKey) return command(event, act);
  if (event.altKey) return false;
  if (key === ']' || key === '[') return did(() => act.step(key === ']' ? 1 : -1));
  if (key === '.' || key === ',') return did(() => act.walk(key === '.' ? 1 : -1));
  if (key === 'Escape') return did(act.letGo);
  if (key === '?') return did(act.showKeys);
  if (key === 'Delete') return did(act.remove);
  return act.selecting() && onSelection(event, act);
}

function command(event: KeyboardEvent, act: KeyActions): boolean {
  const key = event.key.toLowerCase();
  if (key === 'z') return did(event.shiftKey ? act.redo : act.undo);
  return key === 'y' && did(act.redo);
}

function onSelection({ key, target }: KeyboardEvent, act: KeyActions): boolean {
  const kind = KEY[Number(key) - 1];
  if (kind) return did(() => act.mark(kind.code));
  if (key === 'Enter') return !(target as HTMLElement).closest?.('button, a') && did(act.markAgain);
  return /^[\p{L}"“‘'(]$/u.test(key) && did(() => act.write(key));
}

function did(action: () => void): true {
  flushSync(action);
  return true;
}
