import { useCallback, useEffect, useRef, useState } from 'react';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import type { PersonId, StudyNote, StudyNotePatch } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { ProblemError, wordsOf } from '../data/api';
import { call } from '../data/call';
import { keys } from '../data/queries';
import { sent } from '../data/use-saved';
import { useMessages } from '../ui/Messages';
import { NoteSaver, type NoteDraft } from './note-saver';

/** Between the last key and keeping it on this computer, and between that and storing, in milliseconds. */
const READ_AFTER = 300;
const SAVE_AFTER = 600;
/** Between tries without a connection. */
const AGAIN_AFTER = 2_000;

/** What is being written, and what one has left before all of it was stored. */
const savers = new Map<string, NoteSaver>();

const storedOf = (note: StudyNote) => ({ text: note.markdown, version: note.version });

function saverOf(client: QueryClient, me: PersonId, note: StudyNote): NoteSaver {
  const key = `avrelle.study/${me}/${note.id}`;
  const before = savers.get(key);
  if (before && !before.settled) return before;
  const saver = new NoteSaver(storedOf(note), read(key), {
    keep: (draft) => keep(key, draft),
    send: async ({ text, version }) => {
      const body = { version, markdown: text };
      const asked = call('PATCH /api/notes/:id', { params: { id: note.id }, body }).then((stored) => {
        client.setQueryData(keys.studyNote(note.id), stored);
        return stored;
      });
      const how = await sent(asked, storedOf);
      // What was asked for before may know less, also where another window had stored the same.
      if (how.type !== 'failed') void client.invalidateQueries({ queryKey: keys.candidatesOf(note.id) });
      return how;
    },
  });
  savers.set(key, saver);
  return saver;
}

function read(key: string): NoteDraft | undefined {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? 'null') as NoteDraft | null) ?? undefined;
  } catch {
    return undefined;
  }
}

function keep(key: string, draft: NoteDraft | undefined): void {
  try {
    if (draft) localStorage.setItem(key, JSON.stringify(draft));
    else localStorage.removeItem(key);
  } catch {
    // Without room on this computer it is stored a moment later all the same.
  }
}

/** Saves a note while one writes it; what was left unsaved is sent first. */
export function useNoteSaver(note: StudyNote) {
  const client = useQueryClient();
  const me = useMe().id;
  const [saver] = useState(() => saverOf(client, me, note));
  const [saving, setSaving] = useState(saver.saving);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const later = useCallback((work: () => void, pause: number): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(work, pause);
  }, []);
  /** Something was typed. */
  const wrote = useCallback((): void => {
    saver.touch();
    later(() => {
      saver.read();
      later(() => void saver.save(), SAVE_AFTER);
    }, READ_AFTER);
  }, [saver, later]);
  useEffect(() => {
    saver.watcher = (now) => {
      setSaving(now);
      if (now.type === 'failed' && now.offline) later(() => void saver.save(), AGAIN_AFTER);
    };
    const leave = (): void => saver.read();
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('pagehide', leave);
      saver.watcher = undefined;
      clearTimeout(timer.current);
      void saver.save();
    };
  }, [saver, later]);
  useEffect(() => {
    saver.take(storedOf(note));
    if (!saver.settled) void saver.save();
  }, [saver, note]);
  return { saver, saving, wrote };
}

/** Changes what a note is called and what joins it; where it was written meanwhile, upon that. */
export function useNotePatch(id: string, version: () => number) {
  const client = useQueryClient();
  const messages = useMessages();
  return useCallback(
    async (body: Omit<StudyNotePatch, 'version' | 'markdown'>): Promise<StudyNote | undefined> => {
      const send = (at: number) => call('PATCH /api/notes/:id', { params: { id }, body: { ...body, version: at } });
      try {
        const stored = await send(version()).catch((error: unknown) => {
          if (error instanceof ProblemError && error.problem.code === 'stale')
            return send((error.problem.current as StudyNote).version);
          throw error;
        });
        if (!body.deleted) client.setQueryData(keys.studyNote(id), stored);
        await client.invalidateQueries({ queryKey: keys.studyNotes });
        return stored;
      } catch (error) {
        messages.warn(wordsOf(error));
        return undefined;
      }
    },
    [client, id, messages, version],
  );
}
