import { useCallback, useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import type { Amount, Draft, Job } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { withJob } from '../data/jobs';
import { keys, useDraft } from '../data/queries';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { LookChoices, type Wanted } from './LookChoices';
import { LookFrame } from './LookFrame';
import { pictureOfArea, type Area } from './picture-of-area';

/** A page fetched to be looked at: how much of it is kept, how wide, without what. Nothing is kept until one says so. */
export default function LookPage() {
  const { id = '' } = useParams();
  const draft = useDraft(id);
  if (!draft.data)
    return (
      <main>
        <State of={draft} />
      </main>
    );
  return <Look key={id} draft={draft.data} />;
}

function Look({ draft }: { draft: Draft }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const messages = useMessages();
  const [amount, setAmount] = useState<Amount>('whole');
  const [width, setWidth] = useState<number | null>(null);
  const [removed, setRemoved] = useState<readonly string[]>([]);
  const [passage, setPassage] = useState<{ start: number; end: number; words: string }>();
  const [area, setArea] = useState<Area>();
  const [frame, setFrame] = useState<HTMLIFrameElement>();
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const remove = useCallback((path: string) => setRemoved((all) => (all.includes(path) ? all : [...all, path])), []);
  const undo = useCallback(() => setRemoved((all) => all.slice(0, -1)), []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const writing = (event.target as HTMLElement | null)?.closest?.('input, textarea');
      if (!writing && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        undo();
      }
    };
    const inside = frame?.contentDocument;
    document.addEventListener('keydown', onKey);
    inside?.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      inside?.removeEventListener('keydown', onKey);
    };
  }, [frame, undo]);

  const leave = (): void => {
    void call('DELETE /api/drafts/:id', { params: { id: draft.id } }).catch(() => undefined);
    void call('DELETE /api/jobs/:id', { params: { id: draft.id } }).catch(() => undefined);
    client.setQueryData<Job[]>(keys.jobs, (jobs) => jobs?.filter((j) => j.id !== draft.id));
    void navigate('/library');
  };
  const keep = async (wanted: Wanted): Promise<void> => {
    setBusy(true);
    try {
      const job =
        amount === 'picture'
          ? await sendPicture(wanted)
          : await call('POST /api/drafts/:id/keep', {
              params: { id: draft.id },
              body: {
                id: v7(),
                amount,
                width,
                removed,
                passage: amount === 'passage' && passage ? { start: passage.start, end: passage.end } : null,
                title: wanted.title,
                author: wanted.author,
                tags: wanted.tags,
                remark: wanted.remark,
                apart: wanted.apart,
              },
            });
      client.setQueryData<Job[]>(keys.jobs, (jobs) =>
        withJob(
          (jobs ?? []).filter((j) => j.id !== draft.id),
          job,
        ),
      );
      messages.tell('Being kept.');
      void call('DELETE /api/jobs/:id', { params: { id: draft.id } }).catch(() => undefined);
      void navigate('/library');
    } catch (error) {
      setWrong(wordsOf(error));
      setBusy(false);
    }
  };
  const sendPicture = async ({ title, author, tags, remark }: Wanted): Promise<Job> => {
    const picture = await pictureOfArea(frame!, area!);
    const form = new FormData();
    form.append('tags', tags.join(' '));
    form.append('author', author);
    form.append('remark', remark);
    form.append('apart', 'yes');
    form.append('file', picture, `${title.replace(/[/\\]/g, ' ')}.png`);
    const job = await call('POST /api/uploads/:id', { params: { id: v7() }, file: form });
    void call('DELETE /api/drafts/:id', { params: { id: draft.id } }).catch(() => undefined);
    return job;
  };
  return (
    <main className="grid min-h-0 grid-cols-[1fr_340px] max-[900px]:grid-cols-1 max-[900px]:overflow-y-auto">
      <LookFrame
        draft={draft}
        amount={amount}
        width={width}
        removed={removed}
        area={area}
        onFrame={setFrame}
        onRemove={remove}
        onPassage={setPassage}
        onArea={setArea}
      />
      <LookChoices
        draft={draft}
        amount={amount}
        width={width}
        removed={removed.length}
        passage={passage?.words}
        area={area !== undefined}
        busy={busy}
        wrong={wrong}
        onAmount={setAmount}
        onWidth={setWidth}
        onUndo={undo}
        onRestore={() => setRemoved([])}
        onKeep={(wanted) => void keep(wanted)}
        onLeave={leave}
      />
    </main>
  );
}
