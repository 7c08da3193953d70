import { useEffect, useRef } from 'react';
import type { WalkthroughStep } from '@avrelle/core/wire';
import { Sign } from '../ui/Sign';
import { shortName } from '../ui/when';
import { factsOf } from './NoteLine';

interface Props {
  readonly steps: readonly WalkthroughStep[];
  readonly at: number;
  onGo(at: number): void;
}

const ROW = 'grid w-full grid-cols-[32px_1fr] gap-x-1 border-b border-l-[4px] border-b-rule py-2.5 pl-2 pr-4 text-left';

/** All steps, the one that is shown among them; what was shown is ticked. */
export function StepList({ steps, at, onGo }: Props) {
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return (
    <ol
      ref={list}
      aria-label="Steps"
      className="min-h-0 overflow-y-auto border-r border-rule bg-paper max-[1100px]:hidden"
    >
      {steps.map((step, n) => (
        <li key={step.annotationId}>
          <button
            aria-current={n === at ? 'step' : undefined}
            onClick={() => onGo(n)}
            className={`${ROW} ${n === at ? 'border-l-tide bg-sheet' : 'border-l-transparent hover:bg-sheet'}`}
          >
            <b className={`font-read text-[15px] ${n === at ? 'text-tide' : 'text-soft'}`}>
              {n + 1}
              {n < at && (
                <>
                  <span aria-hidden="true"> ✓</span>
                  <span className="sr-only">, shown</span>
                </>
              )}
            </b>
            <Step step={step} />
          </button>
        </li>
      ))}
    </ol>
  );
}

function Step({ step: { note } }: { readonly step: WalkthroughStep }) {
  if (!note) return <span className="text-[14px] text-soft">Not there any more</span>;
  const { quote, words, source, kind, author } = note;
  return (
    <span className="min-w-0">
      <span
        dir="auto"
        lang={source.language || undefined}
        className="line-clamp-3 font-read text-[15px] leading-[21px]"
      >
        {note.asks ? words || quote : quote || words || source.title}
      </span>
      <span className="flex flex-wrap items-baseline gap-x-1.5 text-[13px] text-soft">
        <Sign kind={kind} className="text-[13px]" />
        {[shortName(author.name), ...factsOf(note)].join(' · ')}
      </span>
    </span>
  );
}
