import { useCallback, useEffect, useRef, useState } from 'react';
import { isOffline, ProblemError, wordsOf } from './api';
import { PageSaver, type Saving, type Sent, type StoredPage } from './page-saver';

/** Between tries without a connection, in milliseconds. */
const AGAIN_AFTER = 2_000;
/** Between the last key and saving, in milliseconds. */
export const PAUSE = 900;

interface Saved {
  /** By which it is known on this computer, also in a later visit. */
  readonly key: string;
  /** As it is on the server. */
  readonly stored: StoredPage;
  send(page: StoredPage): Promise<Sent>;
}

/** What is being written, and what one has left before all of it was stored. */
const savers = new Map<string, PageSaver>();

/** Who saves it: whoever did before, when not all was stored then; else upon a draft of an earlier visit. */
function saverOf({ key, stored, send }: Saved): PageSaver {
  const before = savers.get(key);
  if (before && !before.settled) return before;
  const draft = draftOf(key);
  const begun = draft.read();
  const made = new PageSaver(begun && begun.text !== stored.text ? begun : stored, { send, keep: draft.keep });
  if (made.text !== stored.text) made.write(made.text);
  savers.set(key, made);
  return made;
}

/** How a request to store ended; `storedOf` reads what stands there out of its answer, or that of a stale write. */
export async function sent<T>(asked: Promise<T>, storedOf: (answer: T) => StoredPage): Promise<Sent> {
  try {
    return { type: 'stored', page: storedOf(await asked) };
  } catch (error) {
    if (error instanceof ProblemError && error.problem.code === 'stale')
      return { type: 'stale', theirs: storedOf(error.problem.current as T) };
    return { type: 'failed', offline: isOffline(error), words: wordsOf(error) };
  }
}

/** Saves while one writes, and again while there is no connection; what is left unsaved waits for one to come back. */
export function useSaved(of: Saved) {
  const [saver] = useState(() => saverOf(of));
  const [text] = useState(saver.text);
  const [saving, setSaving] = useState(saver.saving);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const later = useCallback(
    (pause: number): void => {
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void saver.save(), pause);
    },
    [saver],
  );
  useEffect(() => {
    saver.watcher = (now) => {
      setSaving(now);
      if (now.type === 'failed' && now.offline) later(AGAIN_AFTER);
    };
    if (!saver.settled) void saver.save();
    return () => {
      saver.watcher = undefined;
      clearTimeout(timer.current);
      void saver.save();
    };
  }, [saver, later]);
  return { text, saving, saver, later };
}

/** How it stands, in a few words; `before` where nothing was written yet. */
export function savingWords(saving: Saving | undefined, before = ''): string {
  switch (saving?.type) {
    case undefined:
      return before;
    case 'unsaved':
      return '…';
    case 'saved':
      return 'Saved';
    case 'conflict':
      return 'Another window wrote here meanwhile: both are shown.';
    case 'failed':
      return saving.offline
        ? 'No connection just now; it is kept on this computer, and saved as soon as the server answers.'
        : saving.words;
  }
}

/** What is not saved yet, on this computer. */
function draftOf(of: string) {
  const key = `avrelle.${of}`;
  return {
    read(): StoredPage | undefined {
      try {
        return (JSON.parse(localStorage.getItem(key) ?? 'null') as StoredPage | null) ?? undefined;
      } catch {
        return undefined;
      }
    },
    keep(unsaved: StoredPage | undefined): void {
      try {
        if (unsaved) localStorage.setItem(key, JSON.stringify(unsaved));
        else localStorage.removeItem(key);
      } catch {
        // Without room on this computer it is saved a moment later all the same.
      }
    },
  };
}
