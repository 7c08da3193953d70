import type { StepNote } from '@avrelle/core/wire';
import { Sign } from '../ui/Sign';
import { count, shortName } from '../ui/when';

const SPOT_WORDS: Readonly<Record<NonNullable<StepNote['spot']>, string>> = {
  area: 'an area',
  time: 'a moment',
  whole: 'all of it',
  drawn: 'a drawing',
};

/** What can be said of a note that is a step beside its words. */
export function factsOf({ asks, answers, spot, seen }: StepNote): readonly string[] {
  return [
    ...(spot ? [SPOT_WORDS[spot]] : []),
    ...(asks ? ['asks the class'] : []),
    ...(answers > 0 ? [count(answers, 'answer')] : []),
    ...(seen === 'held' ? ['held'] : []),
  ];
}

/** A note in a line or two: what was written, the words it is about, and by whom. */
export function NoteLine({ note }: { readonly note: StepNote }) {
  const { kind, author, words, quote, source } = note;
  return (
    <div className="grid min-w-0 grid-cols-[20px_1fr] gap-x-2">
      <Sign kind={kind} className="pt-px" />
      <div className="min-w-0">
        {words && (
          <p dir="auto" className="line-clamp-2 text-[14.5px] leading-5">
            {words}
          </p>
        )}
        <p
          dir="auto"
          lang={source.language || undefined}
          className={`font-read text-[14.5px] italic leading-5 text-soft ${words ? 'line-clamp-1' : 'line-clamp-2'}`}
        >
          {quote || source.title}
        </p>
        <p className="text-[13px] text-soft">
          {[shortName(author.name), ...factsOf(note)].join(' · ')}
          {' · '}
          <span dir="auto">{source.title}</span>
        </p>
      </div>
    </div>
  );
}
