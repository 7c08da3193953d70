import { Link } from 'react-router';
import { giveCardsSchema, type ClassCards, type ClassDetail, type GiveCards as Values } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { Alert } from '../../ui/Alert';
import { DialogFoot } from '../../ui/DialogFoot';
import { DialogFrame } from '../../ui/DialogFrame';
import { FormAlert, FormCheckbox, useSchemaForm } from '../../ui/Form';
import { useMessages } from '../../ui/Messages';
import { count } from '../../ui/when';

interface Props {
  readonly of: ClassDetail;
  readonly mine: ClassCards['mine'];
  onClose(): void;
}

/** Gives some of one's own cards to a class. */
export function GiveCards({ of: c, mine, onClose }: Props) {
  return (
    <DialogFrame title={`Give cards to ${c.name}`} width={620} onClose={onClose}>
      {mine.length === 0 ? <NothingToGive /> : <Choosing of={c} mine={mine} onClose={onClose} />}
    </DialogFrame>
  );
}

function NothingToGive() {
  return (
    <p className="text-soft">
      There is nothing more to give: only cards of what the class reads, or without a passage, can be given. Make one of
      a mark in its readings, or{' '}
      <Link className="act" to="/review/cards">
        write one
      </Link>
      .
    </p>
  );
}

function Choosing({ of: { id, name }, mine, onClose }: Props) {
  const messages = useMessages();
  const { send } = useWrite('PUT /api/classes/:id/cards', 'review');
  const defaults: Values = { cardIds: [], named: false };
  const { form, submit, busy } = useSchemaForm<Values>(giveCardsSchema, defaults, async (values) => {
    await send({ params: { id }, body: values });
    messages.tell(`${count(values.cardIds.length, 'card')} given to ${name}.`);
    onClose();
  });
  const all = mine.map((card) => card.id);
  const chosen = form.watch('cardIds').length;
  const choose = (ids: string[]): void => form.setValue('cardIds', ids, { shouldValidate: true });
  return (
    <form onSubmit={submit} className="grid gap-3.5">
      <p className="text-[14px] text-soft">
        With a card, its passage is given, and your note where that is the answer.
      </p>
      <p className="text-[14px]">
        <button type="button" className="act" onClick={() => choose(chosen === all.length ? [] : all)}>
          {chosen === all.length ? 'Choose none' : 'Choose all'}
        </button>
      </p>
      <fieldset className="relative max-h-[40vh] overflow-y-auto border border-rule px-3">
        <legend className="sr-only">Cards</legend>
        {mine.map((card) => (
          <div key={card.id} className="border-t border-rule py-1.5 first-of-type:border-t-0">
            <FormCheckbox form={form} name="cardIds" value={card.id}>
              <span dir="auto">{card.words}</span>
              {card.title && <span className="block text-[13px] text-soft">{card.title}</span>}
            </FormCheckbox>
          </div>
        ))}
      </fieldset>
      <Alert>{form.formState.errors.cardIds?.message}</Alert>
      <FormCheckbox form={form} name="named">
        Show me who answers how. The students are told.
      </FormCheckbox>
      <FormAlert form={form} />
      <DialogFoot action={chosen > 0 ? `Give ${count(chosen, 'card')}` : 'Give cards'} busy={busy} />
    </form>
  );
}
