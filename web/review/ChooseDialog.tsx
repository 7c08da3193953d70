import { useNavigate } from 'react-router';
import { number, object, string, type InferType } from 'yup';
import { RETENTION } from '@avrelle/core/review';
import type { ReviewWish } from '@avrelle/core/wire';
import { useQuery } from '@tanstack/react-query';
import { useOpenClasses, useTags } from '../data/queries';
import { reviewQuery, useReviewWish, type Chosen } from '../data/review-queries';
import { useStudyNotes } from '../data/study-queries';
import { useWrite } from '../data/use-write';
import { DialogFoot } from '../ui/DialogFoot';
import { DialogFrame } from '../ui/DialogFrame';
import { FormAlert, FormChoice, FormField, useSchemaForm } from '../ui/Form';
import { State } from '../ui/State';

const { least, most } = RETENTION;
const percent = number()
  .typeError('Give a number of percent.')
  .min(least * 100, `Between ${least * 100} and ${most * 100}: below, practising makes little sense.`)
  .max(most * 100, `Between ${least * 100} and ${most * 100}: above, cards would come back nearly every day.`)
  .required();
const amount = (from: number) =>
  number().typeError('Give a number.').integer('Give a whole number.').min(from, `At least ${from}.`).required();
const schema = object({
  /** As `source:ID`; none for everything. */
  of: string().nullable().default(null),
  percent,
  newPerDay: amount(0).max(1_000, 'At most 1,000.'),
  answersPerDay: amount(1).max(10_000, 'At most 10,000.'),
});
type Values = InferType<typeof schema>;

interface Props {
  readonly chosen: Chosen;
  onClose(): void;
}

/** What is practised, how well it shall be remembered, and how much of it a day. */
export function ChooseDialog({ chosen, onClose }: Props) {
  const wish = useReviewWish();
  return (
    <DialogFrame title="What to review" onClose={onClose}>
      <State of={wish}>{wish.data && <Choosing chosen={chosen} wish={wish.data} onClose={onClose} />}</State>
    </DialogFrame>
  );
}

function Choosing({ chosen, wish, onClose }: Props & { readonly wish: ReviewWish }) {
  const navigate = useNavigate();
  const { send } = useWrite('PUT /api/review/wish', 'review');
  const [first] = Object.entries(chosen);
  const defaults: Values = {
    of: first ? first.join(':') : null,
    percent: Math.round(wish.retention * 100),
    newPerDay: wish.newPerDay,
    answersPerDay: wish.answersPerDay,
  };
  const { form, submit, busy } = useSchemaForm<Values>(schema, defaults, async (values) => {
    const { percent: share, newPerDay, answersPerDay } = values;
    await send({ body: { retention: share / 100, newPerDay, answersPerDay } });
    const [kind, ...of] = values.of?.split(':') ?? [];
    void navigate(kind ? `/review?${kind}=${encodeURIComponent(of.join(':'))}` : '/review', { replace: true });
    onClose();
  });
  return (
    <form onSubmit={submit} className="grid gap-4">
      <FormChoice form={form} name="of" label="Cards">
        <option value="">of everything</option>
        <Options />
      </FormChoice>
      <FormField form={form} name="percent" type="number" asNumber label="Of a hundred cards, I want to remember" />
      <p className="-mt-2 text-[13px] text-soft">More means that cards come back sooner.</p>
      <div className="grid grid-cols-2 gap-4">
        <FormField form={form} name="newPerDay" type="number" asNumber label="New cards a day" />
        <FormField form={form} name="answersPerDay" type="number" asNumber label="Answers a day, at most" />
      </div>
      <FormAlert form={form} />
      <DialogFoot action="Review these" busy={busy} />
    </form>
  );
}

/** What cards can be chosen by: sources of which some are due, classes, notes and tags. */
function Options() {
  const sources = useQuery(reviewQuery({})).data?.sources ?? [];
  const classes = useOpenClasses().data ?? [];
  const notes = useStudyNotes().data ?? [];
  const tags = useTags().data ?? [];
  const groups = [
    ['Sources', 'source', sources.flatMap(({ id, title }) => (id ? [[id, title] as const] : []))],
    ['What a class reads', 'class', classes.map(({ id, name }) => [id, name] as const)],
    ['What stands in a note', 'note', notes.map(({ id, title }) => [id, title || 'Without a name'] as const)],
    ['Tags', 'tag', tags.map((tag) => [tag, `#${tag}`] as const)],
  ] as const;
  return groups.map(
    ([label, kind, of]) =>
      of.length > 0 && (
        <optgroup key={kind} label={label}>
          {of.map(([id, name]) => (
            <option key={id} value={`${kind}:${id}`}>
              {name}
            </option>
          ))}
        </optgroup>
      ),
  );
}
