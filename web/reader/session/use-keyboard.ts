import { useEffect } from 'react';
import { flushSync } from 'react-dom';
import { isListOpen } from '../../commands/registry';
import { useDocument } from '../document/document-context';
import { commandFor } from '../model/commands';
import type { ReaderTools } from './tools-context';

/**
 * The reading view's keys, wherever the focus is: on the page in its frame or in the application around it. Each is
 * carried out before the next arrives: React knows nothing of the frame's events and would put their work off. None
 * means anything on a page that is only shown.
 */
export function useKeyboard({ run, situation }: Pick<ReaderTools, 'run' | 'situation'>, isShown: boolean): void {
  const { page } = useDocument();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement | null;
      if (event.defaultPrevented || isListOpen() || isWriting(target)) return;
      const told = isShown ? undefined : commandFor(event, situation(Boolean(target?.closest?.('button, a'))));
      if (!told) return passOn(event);
      event.preventDefault();
      flushSync(() => run(told.id, told.letter));
    };
    const inside = page?.adapter.document;
    document.addEventListener('keydown', onKey);
    inside?.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      inside?.removeEventListener('keydown', onKey);
    };
  }, [page, run, situation, isShown]);
}

/** A key pressed on the page means outside of it what it does there; the window hears of those of its own document alone. */
function passOn(event: KeyboardEvent): void {
  if (event.view !== window && !window.dispatchEvent(new KeyboardEvent('keydown', event))) event.preventDefault();
}

const isWriting = (target: HTMLElement | null): boolean =>
  Boolean(target?.closest?.('input, textarea, select, [contenteditable], [role=dialog], [role=menu]'));
