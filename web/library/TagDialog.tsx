import { useEffect, useState, type FormEvent } from 'react';
import { Dialog } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { TINTS, type TagPreview } from '@avrelle/core/wire';
import { request, wordsOf } from '../data/api';
import { keys, useTints } from '../data/queries';
import { Alert } from '../ui/Alert';
import { DialogFrame } from '../ui/DialogFrame';
import { useMessages } from '../ui/Messages';
import { Tint } from '../ui/Tint';
import { count } from '../ui/when';

/** A tag of one's own under another name, made one with another, moved beneath one, or taken away; what that comes to is told first. */
export default function TagDialog({ tag, onClose }: { tag: string; onClose: (to?: string) => void }) {
  const client = useQueryClient(), messages = useMessages(), [to, setTo] = useState(tag), [preview, setPreview] = useState<TagPreview>(), [wrong, setWrong] = useState('');
  const name = to.trim().replace(/^#/, '').toLowerCase();
  useEffect(() => {
    let here = true;
    const timer = setTimeout(() => request<TagPreview>('POST', '/api/tags/preview', { from: tag, to: name }).then((found) => { if (here) { setPreview(found); setWrong(''); } }, (error: unknown) => { if (here) setWrong(wordsOf(error)); }), 150);
    return () => { here = false; clearTimeout(timer); };
  }, [tag, name]);
  const change = async (as: string): Promise<void> => {
    try {
      await request('POST', '/api/tags/change', { from: tag, to: as });
      await Promise.all(['library', 'found', 'tags', 'annotations'].map((key) => client.invalidateQueries({ queryKey: [key] })));
      messages.tell(as ? `#${tag} is #${as}.` : `#${tag} is gone.`);
      onClose(as);
    } catch (error) { setWrong(wordsOf(error)); }
  };
  const ribbon = useTints(true).data?.[tag] ?? null;
  const tint = async (to: string | null): Promise<void> => {
    try { await request('PUT', '/api/tags/tint', { tag, tint: to }); await client.invalidateQueries({ queryKey: keys.tints }); } catch (error) { setWrong(wordsOf(error)); }
  };
  const submit = (event: FormEvent): void => { event.preventDefault(); if (name && name !== tag) void change(name); else onClose(); };
  return (
    <DialogFrame title={`#${tag}`} onClose={() => onClose()}>
      <p className="mb-3 text-[14px]"><Link className="act" to={`/topic?${new URLSearchParams({ tag })}`}>Its page: what bears it, and what it adds up to</Link></p>
      <form onSubmit={submit} className="grid gap-3">
        <label className="grid gap-1 text-[13px] text-faint">Its name; with / it stands beneath another<input autoFocus value={to} onChange={(e) => setTo(e.target.value)} className="field text-[15px]" /></label>
        {preview && <p role="status" className="text-[14px] text-soft">It is on {count(preview.sources, 'source')} and {count(preview.annotations, 'mark')} of yours{preview.beneath.length > 0 && `, and goes with ${preview.beneath.map((t) => `#${t}`).join(', ')}`}. {preview.merges && <b className="text-ink">#{name} is in use: the two become one, which cannot be parted again.</b>}</p>}
        <fieldset className="flex flex-wrap items-center gap-2 text-[14px]">
          <legend className="mb-1 text-[13px] text-faint">Its ribbon, and that of the tags beneath it</legend>
          {[null, ...TINTS].map((t) => <label key={t} className={`cursor-pointer has-[:focus-visible]:outline-2 ${ribbon === t ? 'outline-2 outline-tide' : ''}`}><input type="radio" name="ribbon" className="sr-only" checked={ribbon === t} onChange={() => void tint(t)} /><Tint tint={t ?? undefined}>{t ?? 'none'}</Tint></label>)}
        </fieldset>
        {wrong && <Alert>{wrong}</Alert>}
        <div className="flex gap-5"><button className="press">{preview?.merges ? 'Make them one' : 'Save'}</button><Dialog.Close className="text-soft">Cancel</Dialog.Close><button type="button" className="ml-auto text-brick" onClick={() => void change('')}>Take it away everywhere</button></div>
      </form>
    </DialogFrame>
  );
}
