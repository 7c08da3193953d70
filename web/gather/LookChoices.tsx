import { useState, type FormEvent } from 'react';
import { Link } from 'react-router';
import { AMOUNT_WORDS, AMOUNTS, WIDTHS, type Amount, type Draft } from '@avrelle/core/wire';
import { Alert } from '../ui/Alert';
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
export function LookChoices({ draft, amount, width, removed, passage, area, busy, wrong, ...act }: Props) {
  const { meta, before, facts } = draft;
  const [title, setTitle] = useState(meta.title);
  const missing = whatIsMissing(amount, Boolean(passage), Boolean(area));
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const {
      author = '',
      tags = '',
      remark = '',
    } = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    act.onKeep({ title, author, tags: tagsIn(tags), remark, apart: before !== null });
  };
  return (
    <form
      onSubmit={submit}
      aria-label="How it is kept"
      className="grid content-start gap-3 overflow-y-auto border-l border-rule bg-paper px-6 py-4 max-[900px]:border-l-0"
    >
      <div>
        <PageHeading className="text-[20px]">Look first</PageHeading>
        <p className="truncate text-[13.5px] text-soft" title={draft.address ?? ''}>
          {[meta.site, minutes(draft.minutes)].filter(Boolean).join(' · ')}
        </p>
      </div>
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
              onChange={() => act.onAmount(each)}
              className="mt-1 accent-[var(--tide)]"
            />
            <span>
              <b className="font-semibold">{AMOUNT_WORDS[each]}</b>{' '}
              <span className="block text-[13px] leading-[17px] text-soft">{SAYS[each]}</span>
            </span>
          </label>
        ))}
      </fieldset>
      {amount === 'whole' && (
        <div className="text-[14px]">
          <div role="group" aria-label="Width it is kept for" className="flex items-baseline gap-3">
            <span className="text-[13px] text-faint">Width</span>
            {WIDTH_CHOICES.map(([pixels, name]) => (
              <button
                key={name}
                type="button"
                aria-pressed={width === pixels}
                title={pixels === null ? 'As wide as there is room' : `${pixels} pixels`}
                onClick={() => act.onWidth(pixels)}
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
                <button type="button" className="act" onClick={act.onUndo}>
                  Undo
                </button>
                <button type="button" className="act" onClick={act.onRestore}>
                  Restore all
                </button>
              </span>
            )}
          </p>
        </div>
      )}
      {amount === 'passage' && passage && (
        <p className="border-l-2 border-strong pl-3 font-read text-[15px]">
          {passage.length > 240 ? `${passage.slice(0, 238)}…` : passage}
        </p>
      )}
      <label className="grid gap-1 text-[13px] text-faint">
        Title
        <input value={title} onChange={(e) => setTitle(e.target.value)} className="field text-[15px]" />
      </label>
      <label className="grid gap-1 text-[13px] text-faint">
        Author
        <input name="author" defaultValue={meta.author} className="field text-[15px]" />
      </label>
      <label className="grid gap-1 text-[13px] text-faint">
        Tags
        <input name="tags" placeholder="#accretion #essay" className="field text-[15px]" />
      </label>
      <label className="grid gap-1 text-[13px] text-faint">
        Remark, for yourself
        <textarea name="remark" rows={2} className="field resize-y text-[15px]" />
      </label>
      <div className="sticky bottom-[-16px] -mx-6 -mb-4 grid gap-1.5 border-t border-rule bg-paper px-6 py-3">
        <Alert>{wrong}</Alert>
        <div className="flex items-baseline gap-5">
          <button className="press" disabled={busy || missing !== '' || !title.trim()}>
            {before ? 'Keep it apart' : 'Keep'}
          </button>
          <button type="button" className="text-soft hover:text-ink" onClick={act.onLeave}>
            Do not keep it
          </button>
        </div>
        {missing && <p className="text-[13px] text-soft">{missing}</p>}
      </div>
    </form>
  );
}
