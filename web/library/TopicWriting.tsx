import { Suspense } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { TopicPage } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { call } from '../data/call';
import type { Sent, StoredPage } from '../data/page-saver';
import { keys } from '../data/queries';
import { PAUSE, savingWords, sent, useSaved } from '../data/use-saved';
import { lazily } from '../ui/lazily';
import { when } from '../ui/when';

const NoteEditor = lazily(() => import('../note/NoteEditor'));
/** What is written about a tag: saved a moment after the last key, and kept on this computer until it is. */
export function TopicWriting({ topic }: { topic: TopicPage }) {
  const { text, saving, saver, later } = useTopic(topic);
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
          {savingWords(saving, topic.writtenAt ? `Written ${when(topic.writtenAt)}` : '')}
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

function useTopic(topic: TopicPage) {
  const client = useQueryClient();
  const me = useMe().id;
  const { tag } = topic;
  const send = ({ text, version }: StoredPage): Promise<Sent> =>
    sent(
      call('PUT /api/topics', { query: { tag }, body: { version, text } }).then((stored) => {
        client.setQueryData(keys.topic(tag), stored);
        return stored;
      }),
      (stored) => stored,
    );
  return useSaved({ key: `topic/${me}/${tag}`, stored: topic, send });
}
