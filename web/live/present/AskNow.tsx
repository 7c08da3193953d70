import { useRef } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { v7 } from 'uuid';
import { string } from 'yup';
import { PLAIN_NOTE } from '@avrelle/core/legend';
import type { AnnotationId, ClassId, LivePlace } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { AskedFor } from '../../questions/AskDialog';
import { askSchema, putOf, valuesOf, type AskValues } from '../../questions/ask-form';
import { useDocument } from '../../reader/document/document-context';
import { useSession } from '../../reader/session/reader-context';
import { DialogFoot } from '../../ui/DialogFoot';
import { DialogFrame } from '../../ui/DialogFrame';
import { FormAlert, FormField, useSchemaForm } from '../../ui/Form';
import { blockAt } from '../page/place-of-top';

interface Props {
  readonly classId: ClassId;
  readonly place: LivePlace;
  /** It is asked by this note from now on. */
  onAsk(id: AnnotationId): void;
  onClose(): void;
}

const schema = askSchema.shape({ words: string().trim().required('Write what you ask.').max(20_000) });

/** Asks the class something now: a note at what is shown, that asks. Its answers are shown by hand. */
export function AskNow({ classId, place, onAsk, onClose }: Props) {
  const { source, writer, legend } = useSession();
  const range = useRange(place);
  const made = useRef<{ readonly id: AnnotationId; readonly words: string }>(undefined);
  const note = useWrite('PUT /api/annotations/:id');
  const put = useWrite('PUT /api/annotations/:id/question', 'questions');
  const begin = { ...valuesOf(undefined), answersShown: 'by_hand' as const, words: '' };
  const { form, submit, busy } = useSchemaForm(schema, begin, async ({ words, ...values }) => {
    // Sent again because it was refused, the same note asks.
    const id = made.current?.words === words ? made.current.id : v7();
    made.current = { id, words };
    const kind = (legend.find('question') ?? PLAIN_NOTE).code;
    const { versionId, anchor } = writer.passage(range);
    const body = { sourceId: source.id, versionId, anchor, kind, note: words, tags: [], classIds: [classId] };
    await note.send({ params: { id }, body });
    await put.send({ params: { id }, body: putOf(values, undefined) });
    onAsk(id);
  });
  return (
    <DialogFrame title="Collect one answer from each" width={520} onClose={onClose}>
      <form noValidate onSubmit={submit} className="grid gap-4">
        <FormField form={form} name="words" label="What do you ask?" rows={2} autoFocus />
        <AskedFor form={form as unknown as UseFormReturn<AskValues>} />
        <FormAlert form={form} />
        <DialogFoot action="Ask now" busy={busy} />
      </form>
    </DialogFrame>
  );
}

/** Where the question stands: at the words that are shown, else at the paragraph one is at. */
function useRange({ annotationId, range }: LivePlace) {
  const { annotations } = useSession();
  const { blocks, scroll } = useDocument();
  const known = annotations.find(({ id }) => id === annotationId)?.place;
  if (known?.start != null && known.end != null) return { start: known.start, end: known.end };
  if (range) return range;
  const at = blockAt(blocks, scroll()?.top ?? 0);
  return blocks.at(at ?? -1)?.block ?? { start: 0, end: 1 };
}
