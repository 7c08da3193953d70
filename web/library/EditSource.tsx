import { useState, type FormEvent } from 'react';
import { Dialog } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { citation } from '@avrelle/core/gather';
import type { SourceDetail, SourceRow } from '@avrelle/core/wire';
import { ProblemError, wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useEase } from '../data/queries';
import { tagsIn } from '../gather/tags-in';
import { Alert } from '../ui/Alert';
import { useMessages } from '../ui/Messages';
import { minutes } from '../ui/when';
import { SuggestedTags } from './SuggestedTags';
import { changeSources } from './use-changing';

const FIELDS = ['title', 'author', 'site', 'publishedAt', 'language', 'doi', 'description', 'remark'] as const;
type Field = (typeof FIELDS)[number];
const LABELS: Readonly<Record<Field, string>> = {
  title: 'Title',
  author: 'Authors, parted by ;',
  site: 'Site or journal',
  publishedAt: 'Published',
  language: 'Language',
  doi: 'DOI',
  description: 'Description',
  remark: 'Remark, for yourself',
};
const HINTS: Partial<Record<Field, string>> = {
  publishedAt: '2026, 2026-10 or 2026-10-02',
  language: 'en, el, pt-BR',
  doi: '10.5555/marsh.7',
};

/** Flesch’s own steps (1948). */
const EASE: readonly (readonly [number, string])[] = [
  [90, 'very easy'],
  [80, 'easy'],
  [70, 'fairly easy'],
  [60, 'standard'],
  [50, 'fairly difficult'],
  [30, 'difficult'],
  [-Infinity, 'very difficult'],
];

const valueOf = (source: SourceRow, field: Field): string =>
  field === 'publishedAt' ? (source.publishedAt ?? '').slice(0, 10) : source[field];

/** What is known of a source, to be corrected; its tags; and how it is cited. A change made elsewhere meanwhile is shown beside one's own. */
export default function EditSource({ source, onClose }: { source: SourceRow; onClose: () => void }) {
  const client = useQueryClient();
  const messages = useMessages();
  const [wrong, setWrong] = useState<{ words: string; field?: string | undefined }>();
  const [theirs, setTheirs] = useState<SourceDetail>();
  const [tags, setTags] = useState(source.tags.map((t) => `#${t}`).join(' '));
  const [given, setGiven] = useState<Record<string, string>>({});
  const now = {
    ...source,
    ...Object.fromEntries(Object.entries(given).filter(([field]) => field !== 'tags')),
    publishedAt: (given.publishedAt ?? source.publishedAt) || null,
  };
  const ease = useEase(source.id).data;
  const cited = citation(now);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const { tags: _, ...fields } = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    const changed = Object.fromEntries(
      FIELDS.filter((field) => fields[field] !== undefined && fields[field] !== valueOf(source, field)).map((field) => [
        field,
        fields[field],
      ]),
    );
    try {
      if (source.owned && Object.keys(changed).length)
        await call('PATCH /api/sources/:id', {
          params: { id: source.id },
          body: { version: theirs?.version ?? source.version, ...changed },
        });
      const wanted = tagsIn(tags);
      const addTags = wanted.filter((t) => !source.tags.includes(t));
      const takeTags = source.tags.filter((t) => !wanted.includes(t));
      if (addTags.length + takeTags.length > 0) await changeSources([{ id: source.id, addTags, takeTags }]);
      await renew(client, 'library');
      onClose();
    } catch (error) {
      setWrong({ words: wordsOf(error), field: error instanceof ProblemError ? error.problem.field : undefined });
      if (error instanceof ProblemError && error.problem.code === 'stale')
        setTheirs(error.problem.current as SourceDetail);
    }
  };
  const field = (name: Field, wide = true) => (
    <label key={name} className={`grid content-start gap-1 text-[13px] text-faint ${wide ? 'col-span-3' : ''}`}>
      {LABELS[name]}
      {name === 'description' || name === 'remark' ? (
        <textarea name={name} rows={2} defaultValue={valueOf(source, name)} className="field resize-y text-[15px]" />
      ) : (
        <input
          name={name}
          defaultValue={valueOf(source, name)}
          placeholder={HINTS[name]}
          aria-invalid={wrong?.field === name || undefined}
          className="field text-[15px]"
        />
      )}
      {wrong?.field === name && <Alert>{wrong.words}</Alert>}
      {theirs && valueOf(theirs, name) !== valueOf(source, name) && (
        <span className="text-brick">stands now: {valueOf(theirs, name)}</span>
      )}
    </label>
  );
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="over fixed left-1/2 top-1/2 z-50 max-h-[92vh] w-[560px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto p-6"
        >
          <Dialog.Title className="mb-3 text-[20px]">{source.owned ? 'About this source' : 'Tags'}</Dialog.Title>
          <form
            onSubmit={(e) => void submit(e)}
            onChange={(e) => {
              const { name, value } = e.target as unknown as HTMLInputElement;
              setGiven((before) => ({ ...before, [name]: value }));
            }}
            className="grid grid-cols-3 gap-x-4 gap-y-3"
          >
            {source.owned && (
              <>
                {field('title')}
                {field('author')}
                {field('site')}
                {field('publishedAt', false)}
                {field('language', false)}
                {field('doi', false)}
                {field('description')}
                {field('remark')}
              </>
            )}
            <div className="col-span-3 grid gap-1">
              <label className="grid gap-1 text-[13px] text-faint">
                Tags
                <input
                  name="tags"
                  value={tags}
                  onChange={(e) => setTags(e.target.value)}
                  placeholder="#accretion #essay"
                  className="field text-[15px]"
                />
              </label>
              <SuggestedTags
                sourceId={source.id}
                without={tagsIn(tags)}
                onAdd={(tag) => setTags(`${tags.trim()} #${tag}`.trim())}
              />
            </div>
            <div className="col-span-3 border-l-2 border-strong pl-3">
              <h3 className="!font-ui text-[13px] !font-normal text-faint">As it is cited</h3>
              <p className="break-words font-read text-[15px] leading-[21px]">{cited}</p>
              <button
                type="button"
                className="act text-[14px]"
                onClick={() =>
                  void navigator.clipboard.writeText(cited).then(
                    () => messages.tell('Citation copied.'),
                    () => messages.warn('It could not be copied; select it and copy it by hand.'),
                  )
                }
              >
                Copy it
              </button>
            </div>
            {source.minutes > 0 && (
              <p className="col-span-3 text-[13px] text-soft">
                {minutes(source.minutes)} to read.
                {ease && (
                  <>
                    {' '}
                    Reading ease {Math.round(ease.ease)}: {EASE.find(([least]) => ease.ease >= least)![1]} (Flesch;{' '}
                    {ease.words.toLocaleString('en')} words in {ease.sentences.toLocaleString('en')} sentences).
                  </>
                )}
              </p>
            )}
            <div className="col-span-3">
              {wrong && !FIELDS.includes(wrong.field as Field) && <Alert>{wrong.words}</Alert>}
            </div>
            <div className="col-span-3 flex gap-5">
              <button className="press">Save</button>
              <Dialog.Close className="text-soft">Cancel</Dialog.Close>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
