import type { ReactNode } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { ClassDetail, SourceId, WalkthroughId } from '@avrelle/core/wire';
import { useReadings } from '../data/reading-queries';
import { useWalkthroughs, walkthroughQuery } from '../data/walkthrough-queries';
import { State } from '../ui/State';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';
import { annotationsQuery } from '../data/source-queries';
import { wordsOf } from '../data/api';
import { placeOf, useStart } from './use-start';

interface Props {
  readonly of: ClassDetail;
  /** Somebody chose. */
  onChosen?(): void;
}

/** What a teacher can show to a class: a walkthrough from its first step, or a reading. */
export function Choose({ of: c, onChosen }: Props) {
  const walkthroughs = useWalkthroughs(c.id);
  const { readings, isMore, isFetching, fetchMore } = useReadings(c);
  const { start, isPending } = useStart(c.id);
  const walk = useShowWalkthrough(c.id);
  const steps = walkthroughs.data?.filter((one) => one.steps > 0) ?? [];
  return (
    <div className="grid max-w-[860px] gap-6">
      <State of={walkthroughs}>
        {steps.length > 0 && (
          <Part title="Walkthroughs">
            {steps.map((one) => (
              <Row key={one.id} title={one.name} facts={count(one.steps, 'step')} disabled={isPending}>
                {() => {
                  walk(one.id);
                  onChosen?.();
                }}
              </Row>
            ))}
          </Part>
        )}
      </State>
      <Part title="Readings">
        {readings.map(({ id, title, site, author }) => (
          <Row key={id} title={title} facts={author || site} disabled={isPending}>
            {() => {
              start({ place: wholeOf(id) });
              onChosen?.();
            }}
          </Row>
        ))}
        {readings.length === 0 && <li className="py-2 text-soft">The class reads nothing yet: set a reading first.</li>}
      </Part>
      {isMore && (
        <p>
          <button className="act" disabled={isFetching} onClick={() => void fetchMore()}>
            Show more readings
          </button>
        </p>
      )}
    </div>
  );
}

const wholeOf = (sourceId: SourceId) => ({ sourceId, annotationId: null, range: null });

/** Shows a walkthrough from its first note that is still there. */
export function useShowWalkthrough(classId: ClassDetail['id']): (id: WalkthroughId) => void {
  const client = useQueryClient();
  const messages = useMessages();
  const { start } = useStart(classId);
  const show = async (walkthroughId: WalkthroughId): Promise<void> => {
    const { steps } = await client.fetchQuery(walkthroughQuery(classId, walkthroughId));
    const notes = steps.flatMap(({ note }) => note ?? []);
    const [first] = notes;
    if (!first) return messages.warn('None of its notes is there any more.');
    await client.prefetchQuery(annotationsQuery(first.source.id));
    start({ place: placeOf(client, first), walkthroughId, step: { at: 0, of: notes.length } });
  };
  return (walkthroughId) => void show(walkthroughId).catch((error: unknown) => messages.warn(wordsOf(error)));
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-1 text-[17px]">{title}</h2>
      <ul>{children}</ul>
    </section>
  );
}

interface RowProps {
  readonly title: string;
  readonly facts: string;
  readonly disabled: boolean;
  readonly children: () => void;
}

function Row({ title, facts, disabled, children: show }: RowProps) {
  return (
    <li className="flex items-baseline gap-x-4 border-t border-rule py-2 last:border-b">
      <span dir="auto" className="min-w-0 font-read text-[16.5px]">
        {title}
      </span>
      <span className="min-w-0 truncate text-[13.5px] text-soft max-[600px]:hidden">{facts}</span>
      <button className="act ml-auto shrink-0" aria-label={`Show ${title}`} disabled={disabled} onClick={show}>
        Show
      </button>
    </li>
  );
}
