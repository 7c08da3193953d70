import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { UseFormReturn } from 'react-hook-form';
import { string, type ObjectSchema } from 'yup';
import { citation } from '@avrelle/core/gather';
import { sourcePatchSchema, type SourceDetail, type SourceRow } from '@avrelle/core/wire';
import { ProblemError } from '../data/api';
import { renew, useEase } from '../data/queries';
import { useWrite } from '../data/use-write';
import { tagsIn } from '../gather/tags-in';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormField, useSchemaForm } from '../ui/Form';
import { useCopy } from '../ui/use-copy';
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

type Values = Record<Field | 'tags', string>;
/** As the server checks them; here every one has a value. */
const editSchema = sourcePatchSchema
  .omit(['version'])
  .shape({ tags: string().default('') }) as unknown as ObjectSchema<Values>;
type Editing = UseFormReturn<Values>;

const valueOf = (source: SourceRow, field: Field): string =>
  field === 'publishedAt' ? (source.publishedAt ?? '').slice(0, 10) : source[field];

/** The facts of a source as they stand. */
const factsOf = (source: SourceRow): Readonly<Record<Field, string>> =>
  Object.fromEntries(FIELDS.map((field) => [field, valueOf(source, field)])) as Record<Field, string>;

interface Props {
  readonly source: SourceRow;
  onClose(): void;
}

/** What is known of a source, to be corrected; its tags; and how it is cited. A change made elsewhere meanwhile is shown beside one's own. */
export default function EditSource({ source, onClose }: Props) {
  const client = useQueryClient();
  const [theirs, setTheirs] = useState<SourceDetail>();
  const changing = useWrite('PATCH /api/sources/:id');
  const send = async ({ tags, ...fields }: Values): Promise<void> => {
    const changed = changedFacts(source, fields);
    const body = { version: theirs?.version ?? source.version, ...changed };
    if (changed)
      await changing.send({ params: { id: source.id }, body }).catch((error: unknown) => {
        if (error instanceof ProblemError && error.problem.code === 'stale')
          setTheirs(error.problem.current as SourceDetail);
        throw error;
      });
    await changeTags(source, tagsIn(tags));
    await renew(client, 'library');
    onClose();
  };
  const tags = source.tags.map((t) => `#${t}`).join(' ');
  const { form, submit, busy } = useSchemaForm(editSchema, { ...factsOf(source), tags }, send);
  return (
    <DialogFrame title={source.owned ? 'About this source' : 'Tags'} width={560} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid grid-cols-3 gap-x-4 gap-y-3">
        {source.owned && FIELDS.map((name) => <Fact key={name} form={form} name={name} was={source} now={theirs} />)}
        <Tags form={form} source={source} />
        <Citation form={form} source={source} />
        {source.minutes > 0 && <Ease source={source} />}
        <div className="col-span-3">
          <FormAlert form={form} />
        </div>
        <div className="col-span-3">
          <DialogFoot action="Save" busy={busy} />
        </div>
      </form>
    </DialogFrame>
  );
}

/** What differs from what was seen. */
function changedFacts(source: SourceRow, fields: Omit<Values, 'tags'>): object | undefined {
  const changed = Object.fromEntries(
    FIELDS.filter((field) => fields[field] !== valueOf(source, field)).map((field) => [field, fields[field]]),
  );
  return source.owned && Object.keys(changed).length > 0 ? changed : undefined;
}

async function changeTags({ id, tags }: SourceRow, wanted: readonly string[]): Promise<void> {
  const addTags = wanted.filter((t) => !tags.includes(t));
  const takeTags = tags.filter((t) => !wanted.includes(t));
  if (addTags.length + takeTags.length > 0) await changeSources([{ id, addTags, takeTags }]);
}

interface FactProps {
  readonly form: Editing;
  readonly name: Field;
  readonly was: SourceRow;
  /** As somebody else has changed it meanwhile. */
  readonly now: SourceDetail | undefined;
}

function Fact({ form, name, was, now }: FactProps) {
  const isNarrow = name === 'publishedAt' || name === 'language' || name === 'doi';
  const isLong = name === 'description' || name === 'remark';
  return (
    <div className={isNarrow ? '' : 'col-span-3'}>
      <FormField form={form} name={name} label={LABELS[name]} hint={HINTS[name]} rows={isLong ? 2 : undefined} />
      {now && valueOf(now, name) !== valueOf(was, name) && (
        <p className="text-[13px] text-brick">stands now: {valueOf(now, name)}</p>
      )}
    </div>
  );
}

function Tags({ form, source }: { readonly form: Editing; readonly source: SourceRow }) {
  const written = form.watch('tags');
  return (
    <div className="col-span-3 grid gap-1">
      <FormField form={form} name="tags" label="Tags" hint="#accretion #essay" />
      <SuggestedTags
        sourceId={source.id}
        without={tagsIn(written)}
        onAdd={(tag) => form.setValue('tags', `${written.trim()} #${tag}`.trim())}
      />
    </div>
  );
}

/** As it is cited with what stands in the form. */
function Citation({ form, source }: { readonly form: Editing; readonly source: SourceRow }) {
  const copy = useCopy();
  const { tags: _, ...given } = form.watch();
  const cited = citation({ ...source, ...given, publishedAt: given.publishedAt || null } as SourceRow);
  return (
    <div className="col-span-3 border-l-2 border-strong pl-3">
      <h3 className="!font-ui text-[13px] !font-normal text-faint">As it is cited</h3>
      <p className="break-words font-read text-[15px] leading-[21px]">{cited}</p>
      <button type="button" className="act text-[14px]" onClick={() => copy(cited, 'Citation copied.')}>
        Copy it
      </button>
    </div>
  );
}

function Ease({ source }: { readonly source: SourceRow }) {
  const ease = useEase(source.id).data;
  return (
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
  );
}
