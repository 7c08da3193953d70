import { useCallback, type ReactNode } from 'react';
import type { Annotation, Live } from '@avrelle/core/wire';
import { ShownSource } from '../../reader/ShownSource';
import { ShownInk } from './ShownInk';

interface Props {
  readonly live: Live;
  /** What else lies over the page. */
  readonly children: ReactNode;
}

/** The page that is shown, with what is drawn on it now; what of that was kept goes on standing there. */
export function ShownPage({ live: { place, by, startedAt }, children }: Props) {
  const isKept = useCallback(
    ({ author, anchor, createdAt }: Annotation): boolean =>
      author.id === by.id && anchor?.spot?.type === 'drawn' && createdAt >= startedAt,
    [by.id, startedAt],
  );
  const { sourceId, annotationId, range } = place;
  return (
    <ShownSource key={sourceId} sourceId={sourceId} at={annotationId} also={isKept} range={range}>
      {children}
      <ShownInk />
    </ShownSource>
  );
}
