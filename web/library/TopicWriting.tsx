import { Suspense, useEffect, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { TopicPage } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { isOffline, ProblemError, request, wordsOf } from '../data/api';
import { keys } from '../data/queries';
import { lazily } from '../ui/lazily';
import { when } from '../ui/when';
import { PageSaver, type Saving, type Sent, type StoredPage } from './page-saver';

const NoteEditor = lazily(() => import('../note/NoteEditor'));
/** Between the last key and saving, and between tries without a connection, in milliseconds. */
const PAUSE = 900,
  AGAIN_AFTER = 2_000;

/** What is written about a tag: saved a moment after the last key, and kept on this computer until it is. */
export function TopicWriting({ topic }: { topic: TopicPage }) {
  const { page, saving, saver, later } = useSaved(topic),
    theirs = saving?.type === 'conflict' ? saving.theirs : undefined;
  const keepMine = (): void => void saver.current?.keepMine();
  const write = (markdown: string): void => {
    saver.current?.write(markdown);
    later(PAUSE);
  };
  return (
    <>
      <div className="flex items-baseline justify-between">
        <h2 className="text-[17px]">What it adds up to</h2>
        <span role="status" className="text-[13px] text-soft">
          {toldOf(saving, topic)}
        </span>
      </div>
      <div
        className="mt-2 border-t border-rule pt-2 font-read text-[16.5px] leading-[26px] [&_.ProseMirror]:max-h-none [&_.ProseMirror]:min-h-[140px] [&_.ProseMirror]:leading-[26px]"
        onBlur={() => later(0)}
      >
        <Suspense fallback={<p className="text-faint">One moment…</p>}>
          <NoteEditor
            label={`What I write about ${topic.tag}`}
            markdown={page.text}
            placeholder="Write what these passages have in common, where they disagree, and what you make of it."
            onChange={({ markdown }) => write(markdown)}
            onSubmit={() => later(0)}
          />
        </Suspense>
      </div>
      {theirs && (
        <div className="mt-3 border-l-2 border-brick pl-3">
          <p className="text-[13px] text-soft">As it was written there meanwhile:</p>
          <pre className="whitespace-pre-wrap font-read text-[15px]">{theirs.text}</pre>
          <button className="act text-[14px]" onClick={keepMine}>
            Keep mine; I have taken from theirs what I need
          </button>
        </div>
      )}
    </>
  );
}

function toldOf(saving: Saving | undefined, { writtenAt }: TopicPage): string {
  switch (saving?.type) {
    case undefined:
      return writtenAt ? `Written ${when(writtenAt)}` : '';
    case 'unsaved':
      return '…';
    case 'saved':
      return 'Saved';
    case 'conflict':
      return 'Another window wrote here meanwhile: both texts are below.';
    case 'failed':
      return saving.offline
        ? 'No connection just now; it is kept on this computer, and saved as soon as the server answers.'
        : saving.words;
  }
}

/** The page as it is to be written on, and who saves it; a draft of an earlier visit comes back. */
function useSaved(topic: TopicPage) {
  const client = useQueryClient(),
    draft = draftOf(useMe().id, topic.tag),
    timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const [begun] = useState(draft.read),
    page = begun && begun.text !== topic.text ? begun : topic;
  const [saving, setSaving] = useState<Saving>(),
    saver = useRef<PageSaver>(undefined);
  const later = (pause: number): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void saver.current?.save(), pause);
  };
  const send = async ({ text, version }: StoredPage): Promise<Sent> => {
    try {
      const address = `/api/topics?${new URLSearchParams({ tag: topic.tag })}`,
        stored = await request<TopicPage>('PUT', address, { version, text });
      client.setQueryData(keys.topic(topic.tag), stored);
      return { type: 'stored', page: stored };
    } catch (error) {
      if (error instanceof ProblemError && error.problem.code === 'stale')
        return { type: 'stale', theirs: error.problem.current as TopicPage };
      if (isOffline(error)) later(AGAIN_AFTER);
      return { type: 'failed', offline: isOffline(error), words: wordsOf(error) };
    }
  };
  const latest = useRef({ send, draft });
  useEffect(() => {
    latest.current = { send, draft };
  });
  useEffect(() => {
    const keep = (unsaved: StoredPage | undefined): void => latest.current.draft.keep(unsaved);
    const made = new PageSaver(page, { send: (p) => latest.current.send(p), keep, told: setSaving });
    saver.current = made;
    if (page !== topic) {
      made.write(page.text);
      void made.save();
    }
    return () => {
      clearTimeout(timer.current);
      void made.save();
    };
    // The page is what one began to write on; what is stored later is told to the one who saves.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return { page, saving, saver, later };
}

/** What was written about a tag and is not saved yet, on this computer. */
function draftOf(personId: string, tag: string) {
  const key = `avrelle.topic/${personId}/${tag}`;
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
        if (unsaved) localStorage.setItem(key, JSON.stringify({ text: unsaved.text, version: unsaved.version }));
        else localStorage.removeItem(key);
      } catch {
        // Without room on this computer it is saved a moment later all the same.
      }
    },
  };
}
