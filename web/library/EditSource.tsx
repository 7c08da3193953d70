import { useState, type FormEvent } from 'react';
import { Dialog } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import type { SourceDetail, SourceRow } from '@avrelle/core/wire';
import { ProblemError, request, wordsOf } from '../data/api';
import { Alert } from '../ui/Alert';

/** Correcting what is known of a source, and its tags. A change made elsewhere meanwhile is shown beside one's own. */
export function EditSource({ source, onClose }: { source: SourceRow; onClose: () => void }) {
  const client = useQueryClient();
  const [wrong, setWrong] = useState('');
  const [theirs, setTheirs] = useState<SourceDetail>();
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const { title, author, site, tags = '' } = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    try {
      if (source.owned) await request('PATCH', `/api/sources/${source.id}`, { version: theirs?.version ?? source.version, title, author, site });
      await request('PUT', `/api/sources/${source.id}/tags`, { tags: tags.split(/[\s,]+/).map((t) => t.replace(/^#/, '').toLowerCase()).filter(Boolean) });
      await client.invalidateQueries({ queryKey: ['library'] });
      onClose();
    } catch (error) {
      setWrong(wordsOf(error));
      if (error instanceof ProblemError && error.problem.code === 'stale') setTheirs(error.problem.current as SourceDetail);
    }
  };
  const field = (name: 'title' | 'author' | 'site', label: string) => (
    <label className="grid gap-1 text-[14px] text-soft">{label}<input name={name} defaultValue={source[name]} className="field text-[15px]" />{theirs && theirs[name] !== source[name] && <span className="text-brick">stands now: {theirs[name]}</span>}</label>
  );
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content aria-describedby={undefined} className="over fixed left-1/2 top-1/2 w-[460px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 p-6">
          <Dialog.Title className="mb-4 text-[20px]">{source.owned ? 'Tags and title' : 'Tags'}</Dialog.Title>
          <form onSubmit={(e) => void submit(e)} className="grid gap-4">
            {source.owned && <>{field('title', 'Title')}{field('author', 'Author')}{field('site', 'Site')}</>}
            <label className="grid gap-1 text-[14px] text-soft">Tags<input name="tags" defaultValue={source.tags.map((t) => `#${t}`).join(' ')} placeholder="#accretion #essay" className="field text-[15px]" /></label>
            <Alert>{wrong}</Alert>
            <div className="flex gap-5"><button className="press">Save</button><Dialog.Close className="text-soft">Cancel</Dialog.Close></div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
