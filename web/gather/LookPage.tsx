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

/** What of the page is to be kept. */
interface Part {
  readonly amount: Amount;
  readonly width: number | null;
  readonly removed: readonly string[];
  readonly passage: { readonly start: number; readonly end: number; readonly words: string } | undefined;
  readonly area: Area | undefined;
}

/** Takes back by Ctrl Z, on the page in its frame and around it; not where one writes. */
function useUndoKey(frame: HTMLIFrameElement | undefined, undo: () => void): void {
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
}

const forgetDraft = (id: string): void =>
  void call('DELETE /api/drafts/:id', { params: { id } }).catch(() => undefined);
const forgetJob = (id: string): void => void call('DELETE /api/jobs/:id', { params: { id } }).catch(() => undefined);

/** Begins to keep a part of what was looked at; an area of it as a picture. */
async function sendPart(id: string, wanted: Wanted, part: Part, frame: HTMLIFrameElement | undefined): Promise<Job> {
  const { amount, width, removed, passage } = part;
  if (amount === 'picture') {
    const job = await sendPicture(wanted, await pictureOfArea(frame!, part.area!));
    forgetDraft(id);
    return job;
  }
  const { title, author, tags, remark, apart } = wanted;
  const words = amount === 'passage' && passage ? { start: passage.start, end: passage.end } : null;
  const body = { id: v7(), amount, width, removed, passage: words, title, author, tags, remark, apart };
  return call('POST /api/drafts/:id/keep', { params: { id }, body });
}

function sendPicture({ title, author, tags, remark }: Wanted, picture: Blob): Promise<Job> {
  const form = new FormData();
  form.append('tags', tags.join(' '));
  form.append('author', author);
  form.append('remark', remark);
  form.append('apart', 'yes');
  form.append('file', picture, `${title.replace(/[/\\]/g, ' ')}.png`);
  return call('POST /api/uploads/:id', { params: { id: v7() }, file: form });
}

/** Keeping what was looked at, or leaving it. */
function useKeeping({ id }: Draft) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const messages = useMessages();
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const others = (jobs: readonly Job[] = []): readonly Job[] => jobs.filter((job) => job.id !== id);
  const keep = async (wanted: Wanted, part: Part, frame: HTMLIFrameElement | undefined): Promise<void> => {
    setBusy(true);
    try {
      const job = await sendPart(id, wanted, part, frame);
      client.setQueryData<readonly Job[]>(keys.jobs, (jobs) => withJob(others(jobs), job));
      messages.tell('Being kept.');
      forgetJob(id);
      void navigate('/library');
    } catch (error) {
      setWrong(wordsOf(error));
      setBusy(false);
    }
  };
  const leave = (): void => {
    forgetDraft(id);
    forgetJob(id);
    client.setQueryData<readonly Job[]>(keys.jobs, (jobs) => jobs && others(jobs));
    void navigate('/library');
  };
  return { wrong, busy, keep, leave };
}

function Look({ draft }: { draft: Draft }) {
  const [amount, setAmount] = useState<Amount>('whole');
  const [width, setWidth] = useState<number | null>(null);
  const [removed, setRemoved] = useState<readonly string[]>([]);
  const [passage, setPassage] = useState<Part['passage']>();
  const [area, setArea] = useState<Area>();
  const [frame, setFrame] = useState<HTMLIFrameElement>();
  const remove = useCallback((path: string) => setRemoved((all) => (all.includes(path) ? all : [...all, path])), []);
  const undo = useCallback(() => setRemoved((all) => all.slice(0, -1)), []);
  useUndoKey(frame, undo);
  const { wrong, busy, keep, leave } = useKeeping(draft);
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
        onKeep={(wanted) => void keep(wanted, { amount, width, removed, passage, area }, frame)}
        onLeave={leave}
      />
    </main>
  );
}
