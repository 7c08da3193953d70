import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router';
import { addressOf, describe, directiveFor } from '@avrelle/core/anchor';
import type { Annotation, SourceDetail, SourceText } from '@avrelle/core/wire';
import { useMessages } from '../../ui/Messages';
import { indexOf } from '../../page/text-index';
import type { AnnotationWriter } from './use-annotation-writer';
import type { OpenPage } from '../document/use-page';

interface Given {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly annotations: readonly Annotation[];
  readonly marks: AnnotationWriter;
  readonly page: OpenPage | undefined;
}

/** Puts an annotation where its author says it belongs, and offers to take that back. */
export function useAccept(
  marks: AnnotationWriter,
): (annotation: Annotation, range: { start: number; end: number }) => void {
  const messages = useMessages();
  return useCallback(
    (annotation, { start, end }) => {
      void marks
        .change(annotation, { place: { start, end } }, 'put in its place')
        .then((held) => held && messages.tell('Put in its place.', { label: 'Undo', run: held.undo }));
    },
    [marks, messages],
  );
}

/** Putting an annotation where it belongs: at a candidate, or where its author selects. Begun here or by `?place=ID`. */
export function usePlacing({ source, text, annotations, marks, page }: Given) {
  const [params, setParams] = useSearchParams();
  const [chosen, setChosen] = useState<string | undefined>();
  const messages = useMessages();
  const asked = chosen ?? params.get('place') ?? undefined;
  const placing = annotations.find((a) => a.id === asked);
  const older = source.versionNumber < source.newest;

  const leave = useCallback((): void => {
    setChosen(undefined);
    if (params.has('place'))
      setParams(
        (before) => {
          before.delete('place');
          return before;
        },
        { replace: true },
      );
  }, [params, setParams]);
  const accept = useAccept(marks);
  const putHere = useCallback((): void => {
    const range = page?.adapter.selection();
    if (!placing || !range) return;
    page?.adapter.select(undefined);
    leave();
    accept(placing, range);
  }, [page, placing, leave, accept]);
  const mayWrite = useCallback((): boolean => {
    if (older)
      messages.tell(`This is version ${source.versionNumber}. Go to the newest version to highlight and write.`);
    return !older;
  }, [older, messages, source.versionNumber]);
  const copyAddress = useCallback(
    (annotation: Annotation): void => {
      const { start, end } = annotation.place ?? {};
      if (start == null || end == null || !source.address) return;
      const index = indexOf(text);
      const address = addressOf(source.address, directiveFor(index, describe(index, { start, end })));
      navigator.clipboard.writeText(address).then(
        () => messages.tell('Address copied. It opens the original page at these words.'),
        () => messages.tell(address),
      );
    },
    [source.address, text, messages],
  );
  return {
    placing,
    mayWrite,
    choose: useCallback((a: Annotation) => setChosen(a.id), []),
    putHere,
    leave,
    accept,
    copyAddress,
  };
}
