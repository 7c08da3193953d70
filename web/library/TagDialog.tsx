import { useEffect, useState, type FormEvent } from 'react';
import { Link } from 'react-router';
import { TINTS, type TagPreview } from '@avrelle/core/wire';
import { ProblemError, wordsOf } from '../data/api';
import { call } from '../data/call';
import { useTints } from '../data/queries';
import { useWrite } from '../data/use-write';
import { Alert } from '../ui/Alert';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { useMessages } from '../ui/Messages';
import { Tint } from '../ui/Tint';
import { count } from '../ui/when';

/** The new name; empty when it was taken away, absent when nothing was changed. */
type Closing = (to?: string) => void;
/** What cannot be undone is asked again before it is done. */
type Asked = { readonly type: 'merge' | 'take away'; readonly to: string };

/** A tag of one's own under another name, made one with another, moved beneath one, or taken away; what that comes to is told first. */
export default function TagDialog({ tag, onClose }: { tag: string; onClose: Closing }) {
  const [to, setTo] = useState(tag);
  const [asked, setAsked] = useState<Asked>();
  const name = to.trim().replace(/^#/, '').toLowerCase();
  const { preview, unfit } = usePreview(tag, name);
  const { change, wrong } = useChange(tag, onClose, () => setAsked({ type: 'merge', to: name }));
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (name === '' || name === tag) onClose();
    else if (preview?.merges.length) setAsked({ type: 'merge', to: name });
    else void change(name, false);
  };
  return (
    <DialogFrame title={`#${tag}`} onClose={() => onClose()}>
      <p className="mb-3 text-[14px]">
        <Link className="act" to={`/topic?${new URLSearchParams({ tag })}`}>
          Its page: everything with this tag, and your summary
        </Link>
      </p>
      <form onSubmit={submit} className="grid gap-3">
        <label className="grid gap-1 text-[13px] text-faint">
          Its name; with / it stands beneath another
          <input
            autoFocus
            value={to}
            onChange={(e) => {
              setTo(e.target.value);
              setAsked(undefined);
            }}
            className="field text-[15px]"
          />
        </label>
        {preview && <Uses preview={preview} />}
        <Ribbon tag={tag} />
        {(wrong || unfit) && <Alert>{wrong || unfit}</Alert>}
        {asked ? (
          <Sure asked={asked} onYes={() => void change(asked.to, true)} onNo={() => setAsked(undefined)} />
        ) : (
          <DialogFoot action="Save">
            <button
              type="button"
              className="ml-auto text-brick"
              onClick={() => setAsked({ type: 'take away', to: '' })}
            >
              Delete this tag everywhere…
            </button>
          </DialogFoot>
        )}
      </form>
    </DialogFrame>
  );
}

const usesOf = ({ sources, annotations }: TagPreview): string =>
  `${count(sources, 'source')} and ${count(annotations, 'mark')} of yours`;
const listed = (tags: readonly string[]): string => tags.map((t) => `#${t}`).join(', ');

function Uses({ preview }: { preview: TagPreview }) {
  const { beneath, merges } = preview;
  return (
    <p role="status" className="text-[14px] text-soft">
      It is on {usesOf(preview)}
      {beneath.length > 0 && `, and goes with ${listed(beneath)}`}.{' '}
      {merges.length > 0 && (
        <b className="text-ink">
          {listed(merges)} {merges.length === 1 ? 'is' : 'are'} in use: two become one there, which cannot be undone.
        </b>
      )}
    </p>
  );
}

/** The first press told what will be; the second does it. */
function Sure({ asked, onYes, onNo }: { asked: Asked; onYes: () => void; onNo: () => void }) {
  return (
    <div className="flex flex-wrap gap-5">
      <button type="button" autoFocus className="press" onClick={onYes}>
        {asked.type === 'merge' ? 'Make them one' : 'Yes, take it away'}
      </button>
      <button type="button" className="text-soft" onClick={onNo}>
        No
      </button>
    </div>
  );
}

/** What another name would come to; `unfit` when it cannot be one. */
function usePreview(tag: string, name: string): { preview: TagPreview | undefined; unfit: string } {
  const [shown, setShown] = useState<{ readonly name: string; readonly preview: TagPreview }>();
  const [unfit, setUnfit] = useState('');
  useEffect(() => {
    let here = true;
    const ask = async (): Promise<void> => {
      const found = await call('POST /api/tags/preview', { body: { from: tag, to: name } }).catch(wordsOf);
      if (!here) return;
      setUnfit(typeof found === 'string' ? found : '');
      if (typeof found !== 'string') setShown({ name, preview: found });
    };
    const timer = setTimeout(() => void ask(), 150);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [tag, name]);
  // That of another name says nothing of this one.
  return { preview: shown?.name === name ? shown.preview : undefined, unfit };
}

/** Changes the tag. `onInUse` when it would become one with another, and nobody has said yet that it may. */
function useChange(tag: string, onClose: Closing, onInUse: () => void) {
  const put = useWrite('POST /api/tags/change', 'tags');
  const messages = useMessages();
  const [wrong, setWrong] = useState('');
  const change = async (to: string, merge: boolean): Promise<void> => {
    try {
      await put.send({ body: { from: tag, to, merge } });
      messages.tell(to ? `#${tag} is #${to}.` : `#${tag} is gone.`);
      onClose(to);
    } catch (error) {
      if (error instanceof ProblemError && error.problem.code === 'tag_in_use') onInUse();
      else setWrong(wordsOf(error));
    }
  };
  return { change, wrong };
}

function Ribbon({ tag }: { tag: string }) {
  const put = useWrite('PUT /api/tags/tint', 'tints');
  const ribbon = useTints(true).data?.[tag] ?? null;
  const [wrong, setWrong] = useState('');
  const set = async (tint: (typeof TINTS)[number] | null): Promise<void> => {
    try {
      await put.send({ body: { tag, tint } });
    } catch (error) {
      setWrong(wordsOf(error));
    }
  };
  return (
    <fieldset className="flex flex-wrap items-center gap-2 text-[14px]">
      <legend className="mb-1 text-[13px] text-faint">Its ribbon, and that of the tags beneath it</legend>
      {[null, ...TINTS].map((t) => (
        <label
          key={t}
          className={`cursor-pointer has-[:focus-visible]:outline-2 ${ribbon === t ? 'outline-2 outline-tide' : ''}`}
        >
          <input type="radio" name="ribbon" className="sr-only" checked={ribbon === t} onChange={() => void set(t)} />
          <Tint tint={t ?? undefined}>{t ?? 'none'}</Tint>
        </label>
      ))}
      {wrong && <Alert>{wrong}</Alert>}
    </fieldset>
  );
}
