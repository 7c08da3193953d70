import { useForm } from 'react-hook-form';
import { Link } from 'react-router';
import { AMOUNT_WORDS, AMOUNTS, WIDTHS, type Amount, type Draft } from '@avrelle/core/wire';
import { Alert } from '../ui/Alert';
import { FormField } from '../ui/Form';
import { count, day, minutes } from '../ui/when';
import { tagsIn } from './tags-in';
import { PageHeading } from '../ui/PageHeading';

/** What its reader wrote about it. */
export interface Wanted {
  readonly title: string;
  readonly author: string;
  readonly tags: readonly string[];
  readonly remark: string;
  readonly apart: boolean;
}

interface Props {
  readonly draft: Draft;
  readonly amount: Amount;
  readonly width: number | null;
  readonly removed: number;
  readonly passage: string | undefined;
  readonly area: boolean;
  readonly busy: boolean;
  readonly wrong: string;
  onAmount(amount: Amount): void;
  onWidth(width: number | null): void;
  onUndo(): void;
  onRestore(): void;
  onKeep(wanted: Wanted): void;
  onLeave(): void;
}

const SAYS: Readonly<Record<Amount, string>> = {
  whole: 'as it looks; click a section to take it out',
  main: 'the text without what is around it',
  passage: 'only words you select on the page',
  link: 'title, description and address',
  picture: 'an area you draw on the page',
};
const WIDTH_CHOICES = [
  [null, 'fits'],
  [WIDTHS.phone, 'phone'],
  [WIDTHS.tablet, 'tablet'],
  [WIDTHS.desk, 'desk'],
] as const;

function whatIsMissing(amount: Amount, passage: boolean, area: boolean): string {
  if (amount === 'passage' && !passage) return 'Select the words on the page.';
  return amount === 'picture' && !area ? 'Draw the area on the page.' : '';
}

/** Beside the page: how much, how wide, without what; what it is called; and keeping it. */
export function LookChoices(props: Props) {
  const { draft, amount, passage, area, busy, wrong, onKeep, onLeave } = props;
  const { meta, before } = draft;
  const form = useForm({ defaultValues: { title: meta.title, author: meta.author, tags: '', remark: '' } });
  const missing = whatIsMissing(amount, Boolean(passage), area);
  const submit = form.handleSubmit(({ tags, ...written }) =>
    onKeep({ ...written, tags: tagsIn(tags), apart: before !== null }),
  );
  return (
    <form
      onSubmit={(event) => void submit(event)}
      aria-label="How it is kept"
      className="grid content-start gap-3 overflow-y-auto border-l border-rule bg-paper px-6 py-4 max-[900px]:border-l-0"
    >
      <div>
        <PageHeading className="text-[20px]">Look first</PageHeading>
        <p className="truncate text-[13.5px] text-soft" title={draft.address ?? ''}>
          {[meta.site, minutes(draft.minutes)].filter(Boolean).join(' · ')}
        </p>
      </div>
      <WhatWasFound draft={draft} />
      <Amounts amount={amount} onAmount={props.onAmount} />
      {amount === 'whole' && <WholePage {...props} />}
      {amount === 'passage' && passage && (
        <p className="border-l-2 border-strong pl-3 font-read text-[15px]">
          {passage.length > 240 ? `${passage.slice(0, 238)}…` : passage}
        </p>
      )}
      <FormField form={form} name="title" label="Title" />
      <FormField form={form} name="author" label="Author" />
      <FormField form={form} name="tags" label="Tags" hint="#accretion #essay" />
      <FormField form={form} name="remark" label="Remark, for yourself" rows={2} />
      <div className="sticky bottom-[-16px] -mx-6 -mb-4 grid gap-1.5 border-t border-rule bg-paper px-6 py-3">
        <Alert>{wrong}</Alert>
        <div className="flex items-baseline gap-5">
          <button className="press" disabled={busy || missing !== '' || !form.watch('title').trim()}>
            {before ? 'Keep it apart' : 'Keep'}
          </button>
          <button type="button" className="text-soft hover:text-ink" onClick={onLeave}>
            Do not keep it
          </button>
        </div>
        {missing && <p className="text-[13px] text-soft">{missing}</p>}
      </div>
    </form>
  );
}

/** What its reader should know before it is kept. */
function WhatWasFound({ draft: { before, facts } }: Pick<Props, 'draft'>) {
  return (
    <>
      {before && (
        <p role="status" className="border-l-[3px] border-tide pl-3 text-[14px]">
          You kept this on {day(before.keptAt)}
          {before.mine > 0 && `, with ${count(before.mine, 'mark')} of yours`}.{' '}
          <Link className="act" to={`/source/${before.sourceId}`}>
            Open it
          </Link>
          , or keep this one apart.
        </p>
      )}
      {facts.scripted && (
        <p role="status" className="border-l-[3px] border-brick pl-3 text-[14px]">
          A script makes this page’s content in a browser. Only what stands here was found; to have it all, save the
          page in your browser and upload the file.
        </p>
      )}
      {(facts.missing ?? 0) > 0 && (
        <p role="status" className="text-[14px] text-soft">
          {count(facts.missing!, 'picture or style', 'pictures and styles')} could not be loaded.
        </p>
      )}
    </>
  );
}

function Amounts({ amount, onAmount }: Pick<Props, 'amount' | 'onAmount'>) {
  return (
    <fieldset>
      <legend className="mb-1 text-[13px] text-faint">How much</legend>
      {AMOUNTS.map((each) => (
        <label
          key={each}
          className={`grid cursor-pointer grid-cols-[18px_1fr] gap-x-2 border-t border-rule py-1.5 ${each === amount ? 'bg-wash' : ''}`}
        >
          <input
            type="radio"
            name="amount"
            value={each}
            checked={each === amount}
            onChange={() => onAmount(each)}
            className="mt-1 accent-[var(--tide)]"
          />
          <span>
            <b className="font-semibold">{AMOUNT_WORDS[each]}</b>{' '}
            <span className="block text-[13px] leading-[17px] text-soft">{SAYS[each]}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}

/** How wide, and without what. */
function WholePage({ width, removed, onWidth, onUndo, onRestore }: Props) {
  return (
    <div className="text-[14px]">
      <div role="group" aria-label="Width it is kept for" className="flex items-baseline gap-3">
        <span className="text-[13px] text-faint">Width</span>
        {WIDTH_CHOICES.map(([pixels, name]) => (
          <button
            key={name}
            type="button"
            aria-pressed={width === pixels}
            title={pixels === null ? 'As wide as there is room' : `${pixels} pixels`}
            onClick={() => onWidth(pixels)}
            className={width === pixels ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
          >
            {name}
          </button>
        ))}
      </div>
      <p aria-live="polite" className="mt-2 text-soft">
        {removed === 0 ? 'Nothing removed.' : `${count(removed, 'section')} removed.`}{' '}
        {removed > 0 && (
          <span className="inline-flex gap-3">
            <button type="button" className="act" onClick={onUndo}>
              Undo
            </button>
            <button type="button" className="act" onClick={onRestore}>
              Restore all
            </button>
          </span>
        )}
      </p>
    </div>
  );
}
