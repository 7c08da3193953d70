import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { Annotation } from '@avrelle/core/wire';
import { useMessages } from '../../ui/Messages';
import type { StreamRange } from '../../page/page-frame';
import { useDocument } from '../document/document-context';
import { useReader, useSession } from './reader-context';
import type { AnnotationWriter } from './annotation-writer';

export interface Placing {
  /** The annotation whose place is being shown by its author. */
  readonly placing: Annotation | undefined;
  begin(annotation: Annotation): void;
  /** At the selected words. */
  putHere(): void;
  leave(): void;
  /** At a place that was proposed. */
  accept(annotation: Annotation, range: StreamRange): void;
}

/** Puts an annotation where its author says it belongs, and offers to take that back. */
export function useAccept(writer: AnnotationWriter): Placing['accept'] {
  const messages = useMessages();
  return useCallback(
    (annotation, { start, end }) => {
      void writer
        .change(annotation, { place: { start, end } }, 'put in its place')
        .then((held) => held && messages.tell('Put in its place.', { label: 'Undo', run: held.undo }));
    },
    [writer, messages],
  );
}

/** Putting an annotation where it belongs: at a candidate, or where its author selects. Begun here or by `?place=ID`. */
export function usePlacing(): Placing {
  const { store, annotations, writer } = useSession();
  const { page, selection } = useDocument();
  const [params, setParams] = useSearchParams();
  const chosen = useReader((s) => s.placing);
  const accept = useAccept(writer);
  const asked = chosen ?? params.get('place') ?? undefined;
  const placing = useMemo(() => annotations.find((a) => a.id === asked), [annotations, asked]);
  return useMemo((): Placing => {
    const leave = (): void => {
      store.dispatch({ type: 'place', id: undefined });
      if (params.has('place')) setParams(withoutPlace, { replace: true });
    };
    return {
      placing,
      accept,
      leave,
      begin: ({ id }) => store.dispatch({ type: 'place', id }),
      putHere: () => {
        const range = selection();
        if (!placing || !range) return;
        page?.adapter.select(undefined);
        leave();
        accept(placing, range);
      },
    };
  }, [store, placing, accept, params, setParams, page, selection]);
}

function withoutPlace(params: URLSearchParams): URLSearchParams {
  params.delete('place');
  return params;
}
