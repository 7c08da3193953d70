import { Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import type { TopicPage, PersonId } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { isOffline, ProblemError, wordsOf } from '../data/api';
import { call } from '../data/call';
import { keys } from '../data/queries';
import { lazily } from '../ui/lazily';
import { when } from '../ui/when';
import { PageSaver, type Saving, type Sent, type StoredPage } from './page-saver';

const NoteEditor = lazily(() => import('../note/NoteEditor'));
/** Between the last key and saving, and between tries without a connection, in milliseconds. */
const PAUSE = 900;
const AGAIN_AFTER = 2_000;

/** What is written about a tag: saved a moment after the last key, and kept on this computer until it is. */
export function TopicWriting({ topic }: { topic: TopicPage }) {
  const { text, saving, saver, later } = useSaved(topic);
  const theirs = saving?.type === 'conflict' ? saving.theirs : undefined;
  const write = (markdown: string): void => {
    saver.write(markdown);
    later(PAUSE);
  };
  return (
    <>
      <div className="flex items-baseline justify-between">
        <h2 className="text-[17px]">My summary</h2>
        <span role="status" className="text-[13px] text-soft">
          {toldOf(saving, topic)}
        </span>
      </div>
      <div
        className="mt-2 border-t border-rule pt-2 font-read text-[16.5px] leading-[26px] [&_.ProseMirror]:max-h-none [&_.ProseMirror]:min-h-[140px] [&_.ProseMirror]:leading-[26px]"
        onBlur={() => later(0)}
      >
        <Suspense fallback={<p className="text-faint">Loading…</p>}>
          <NoteEditor
            label={`What I write about ${topic.tag}`}
            markdown={text}
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
          <button className="act text-[14px]" onClick={() => void saver.keepMine()}>
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

/** Those of pages that are being written, and of pages one has left before all was stored. */
const savers = new Map<string, PageSaver>();

/** Who saves the page: whoever did before, when not all was stored then; else upon a draft of an earlier visit. */
function saverOf(client: QueryClient, personId: PersonId, topic: TopicPage): PageSaver {
  const key = `${personId}/${topic.tag}`;
  const before = savers.get(key);
  if (before && !before.settled) return before;
  const draft = draftOf(key);
  const begun = draft.read();
  const send = (page: StoredPage): Promise<Sent> => sendTopic(client, topic.tag, page);
  const made = new PageSaver(begun && begun.text !== topic.text ? begun : topic, { send, keep: draft.keep });
  if (made.text !== topic.text) made.write(made.text);
  savers.set(key, made);
  return made;
}

async function sendTopic(client: QueryClient, tag: string, { text, version }: StoredPage): Promise<Sent> {
  try {
    const stored = await call('PUT /api/topics', { query: { tag }, body: { version, text } });
    client.setQueryData(keys.topic(tag), stored);
    return { type: 'stored', page: stored };
  } catch (error) {
    if (error instanceof ProblemError && error.problem.code === 'stale')
      return { type: 'stale', theirs: error.problem.current as TopicPage };
    return { type: 'failed', offline: isOffline(error), words: wordsOf(error) };
  }
}

/** Saves while one writes, and again while there is no connection; what is left unsaved waits for one to come back. */
function useSaved(topic: TopicPage) {
  const client = useQueryClient();
  const me = useMe().id;
  const [saver] = useState(() => saverOf(client, me, topic));
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

/** What was written about a tag and is not saved yet, on this computer. */
function draftOf(page: string) {
  const key = `avrelle.topic/${page}`;
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
