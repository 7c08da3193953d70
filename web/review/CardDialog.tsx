import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { boolean, object, string, type InferType } from 'yup';
import type { AnnotationId, CardPassage, ReviewCard } from '@avrelle/core/wire';
import { passageQuery } from '../data/review-queries';
import { useWrite } from '../data/use-write';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormCheckbox, FormField, useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { AreaPicture } from './AreaPicture';
import { chosenBy, slipsOf, wordBlocks } from './slip-words';
import { SlipWords } from './SlipWords';

const schema = object({
  question: string().trim().max(2_000, 'A question may have 2,000 characters.').default(''),
  answer: string().trim().max(20_000, 'An answer may have 20,000 characters.').default(''),
  covers: boolean().default(false),
});
type Values = InferType<typeof schema>;

interface Props {
  /** The one that is changed; none where it is new. */
  readonly card?: ReviewCard;
  /** The mark it is of; null for one without a passage. */
  readonly annotationId: AnnotationId | null;
  readonly title?: string;
  onClose(): void;
  /** It is made, changed or deleted; where nothing is said, the dialog closes. */
  onDone?: () => void;
}

/** Makes a card, or changes one: its question and answer, and what lies under a slip. */
export default function CardDialog({ card, annotationId, title, onClose, onDone = onClose }: Props) {
  const asked = useQuery({ ...passageQuery(annotationId ?? ''), enabled: annotationId !== null && !card });
  const passage = card?.passage ?? asked.data;
  return (
    <DialogFrame title={title ?? (card ? 'Edit the card' : 'Make a card')} width={560} onClose={onClose}>
      {annotationId !== null && !passage ? (
        <State of={asked} />
      ) : (
        <CardForm key={annotationId} card={card} annotationId={annotationId} passage={passage} onDone={onDone} />
      )}
    </DialogFrame>
  );
}

interface FormProps {
  readonly card: ReviewCard | undefined;
  readonly annotationId: AnnotationId | null;
  readonly passage: CardPassage | undefined;
  onDone(): void;
}

const NEW: Values = { question: '', answer: '', covers: false };

function CardForm({ card, annotationId, passage, onDone }: FormProps) {
  const { blocks, chosen, setChosen, slips } = useSlips(card, passage);
  const save = useSave(card, annotationId, onDone);
  const { question, answer, covers } = card ?? NEW;
  const { form, submit, busy } = useSchemaForm<Values>(schema, { question, answer, covers }, (values) =>
    save({ ...values, slips }),
  );
  return (
    <form onSubmit={submit} className="grid gap-3.5">
      <FormField form={form} name="question" label="Question" rows={2} autoFocus look="font-read" />
      {passage?.spot?.type === 'area' && passage.versionId ? (
        <>
          <AreaPicture spot={passage.spot} versionId={passage.versionId} covered={form.watch('covers')} />
          <FormCheckbox form={form} name="covers">
            Put this area under a slip
          </FormCheckbox>
        </>
      ) : (
        blocks.length > 0 && <SlipWords blocks={blocks} chosen={chosen} onChoose={setChosen} />
      )}
      <FormField form={form} name="answer" label="Answer" rows={3} hint={passage?.note ? NOTE_ANSWERS : undefined} />
      <FormAlert form={form} />
      <DialogFoot action={card ? 'Save' : 'Make the card'} busy={busy}>
        {card && <Delete card={card} onDone={onDone} />}
      </DialogFoot>
    </form>
  );
}

const NOTE_ANSWERS = 'Nothing written here: your note is the answer';

/** The words of the passage, and which of them lie under slips. */
function useSlips(card: ReviewCard | undefined, passage: CardPassage | undefined) {
  const start = passage?.start ?? 0;
  const [blocks] = useState(() => (passage ? wordBlocks(passage, card?.source?.language ?? '') : []));
  const [chosen, setChosen] = useState<string[]>(() => chosenBy(blocks, start, card?.slips ?? []));
  return { blocks, chosen, setChosen, slips: slipsOf(blocks, start, chosen) };
}

type Words = Values & { readonly slips: { readonly at: number; readonly words: string }[] };

function useSave(card: ReviewCard | undefined, annotationId: AnnotationId | null, onDone: () => void) {
  const messages = useMessages();
  const put = useWrite('PUT /api/cards/:id', 'review');
  const patch = useWrite('PATCH /api/cards/:id', 'review');
  return async (words: Words): Promise<void> => {
    if (card) await patch.send({ params: { id: card.id }, body: { version: card.version, ...words } });
    else {
      await put.send({ params: { id: v7() }, body: { annotationId, ...words } });
      messages.tell('The card is made: it waits under Review.');
    }
    onDone();
  };
}

function Delete({ card, onDone }: { card: ReviewCard; onDone: () => void }) {
  const messages = useMessages();
  const patch = useWrite('PATCH /api/cards/:id', 'review');
  const restore = useWrite('POST /api/cards/:id/restore', 'review');
  const { id, version } = card;
  const remove = (): void =>
    patch.run({ params: { id }, body: { version, deleted: true } }, () => {
      messages.tell('The card is deleted.', { label: 'Undo', run: () => restore.run({ params: { id } }) });
      onDone();
    });
  return (
    <button type="button" className="ml-auto font-semibold text-brick hover:underline" onClick={remove}>
      Delete the card
    </button>
  );
}
