import type { UseFormReturn } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import type { NamedGroup } from '@avrelle/core/audience';
import type { Kind } from '@avrelle/core/legend';
import { OTHERS_SEEN, type Assignment, type ClassLabel } from '@avrelle/core/wire';
import { useMe } from '../../account/me';
import { useClasses } from '../../data/queries';
import { useWrite } from '../../data/use-write';
import { Alert } from '../../ui/Alert';
import { FormAlert, FormCheckbox, FormField, FormRadios, useSchemaForm } from '../../ui/Form';
import { useKept } from '../../ui/kept';
import { KeptBack } from '../../ui/KeptBack';
import { ownZone } from '../../ui/local-time';
import { useMessages } from '../../ui/Messages';
import { count, dueAt } from '../../ui/when';
import { aboutSet, namesOf, SEEN_WORDS } from '../words';
import { ExpectedFields } from './ExpectedFields';
import { putOf, setSchema, valuesOf, type SetValues } from './set-form';
import { Unset } from './Unset';

interface Props {
  readonly place: { readonly id: string; readonly sourceId: string };
  readonly className: string;
  /** Of which marks can be asked for. */
  readonly kinds: readonly Kind[];
  readonly groups: readonly NamedGroup[];
  /** As it is set already. */
  readonly set: Assignment | undefined;
  readonly isRecording: boolean;
}

/** What the class is asked to do with a reading, from when to when, and from when on they see each other. */
export function SetForm({ place, className, kinds, groups, set, isRecording }: Props) {
  const put = useWrite('PUT /api/classes/:id/assignments/:sourceId', 'classes');
  const navigate = useNavigate();
  const messages = useMessages();
  const kept = useKept<SetValues>(useMe().id, `set/${place.id}/${place.sourceId}`, set?.version ?? null);
  const send = async (values: SetValues): Promise<void> => {
    await put.send({ params: place, body: putOf(values, set?.version) });
    messages.tell(set ? CHANGED[values.publish ? 'told' : 'quiet'] : setWords(className, values.alsoIn.length));
    kept.drop();
    await navigate(`/classes/${place.id}`);
  };
  const { form, submit, busy } = useSchemaForm(setSchema, valuesOf(set), send, kept);
  return (
    <form noValidate onSubmit={submit} className="mt-5 grid gap-6">
      <KeptBack form={form} kept={kept} />
      <FormField
        form={form}
        name="instructions"
        label="Instructions"
        hint="Read section 3 closely. Which of the numbers would you trust?"
        rows={4}
      />
      <ExpectedFields form={form} kinds={kinds} />
      {isRecording && <InOrder form={form} />}
      <fieldset className="grid grid-cols-2 gap-x-6 gap-y-3 max-[600px]:grid-cols-1">
        <legend className="mb-1 text-[17px] font-semibold text-ink">When</legend>
        <FormField form={form} name="opens" label="Opens (at once, if left empty)" type="datetime-local" />
        <FormField form={form} name="due" label="Due (never, if left empty)" type="datetime-local" />
        <p className="col-span-full text-[13px] text-soft">
          Times are as they are where you are ({ownZone().replace('_', ' ')}); everybody sees them in their own. Until
          it opens, only the teachers of the class see the reading.
        </p>
      </fieldset>
      {groups.length > 0 && <ForGroups form={form} groups={groups} />}
      <Others form={form} />
      {set ? <OfSet form={form} set={set} /> : <AlsoIn form={form} classId={place.id} />}
      {set && set.version !== (kept.upon ?? undefined) && <StandsNow set={set} />}
      <FormAlert form={form} />
      <div className="flex flex-wrap items-baseline gap-5">
        <button className="press" disabled={busy}>
          {set ? 'Save changes' : `Set it for ${className}`}
        </button>
        <Link to={`/classes/${place.id}`} className="act font-normal text-soft" onClick={kept.drop}>
          Cancel
        </Link>
        {set && <Unset set={set} />}
      </div>
    </form>
  );
}

const setWords = (className: string, more: number): string =>
  `The reading is set for ${className}${more > 0 ? ` and ${count(more, 'more class', 'more classes')}` : ''}.`;

/** The other classes that I teach: the same is set there, for the whole class. */
function AlsoIn({ form, classId }: { readonly form: UseFormReturn<SetValues>; readonly classId: string }) {
  const others = (useClasses().data ?? []).filter(
    (c) => c.id !== classId && c.role !== 'student' && c.archivedAt === null,
  );
  if (others.length === 0) return null;
  const wrong = form.formState.errors.alsoIn?.message;
  const isForMore = form.watch('alsoIn').length > 0;
  return (
    <fieldset>
      <legend className="mb-1 text-[17px] font-semibold text-ink">Set it for other classes, too</legend>
      <div className="flex flex-wrap gap-x-6 gap-y-1.5">
        {others.map(({ id, name }) => (
          <FormCheckbox key={id} form={form} name="alsoIn" value={id}>
            {name}
          </FormCheckbox>
        ))}
      </div>
      <Alert>{wrong}</Alert>
      {isForMore && (
        <FormCheckbox form={form} name="together">
          They read it together: each class sees what the others write, too
        </FormCheckbox>
      )}
      <p className="mt-1 text-[13px] text-soft">
        {isForMore && form.watch('together')
          ? TOGETHER_WORDS
          : 'Each class sees its own marks alone, and is asked as a whole. Later you change each by itself.'}
      </p>
    </fieldset>
  );
}

const TOGETHER_WORDS =
  'From now on. What students wrote before stays in their class, and so does what is for its teachers or for a group.';

/** Of what several classes read together: whether this one goes on. */
function Together({
  form,
  classes,
}: {
  readonly form: UseFormReturn<SetValues>;
  readonly classes: readonly ClassLabel[];
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-[17px] font-semibold text-ink">Read together</legend>
      <FormCheckbox form={form} name="together">
        {namesOf(classes)} and this class see what is written for each other
      </FormCheckbox>
      {!form.watch('together') && (
        <p className="mt-1 text-[13px] text-soft">
          From then on each sees its own alone. To have them together again, set the reading anew.
        </p>
      )}
    </fieldset>
  );
}

function InOrder({ form }: { readonly form: UseFormReturn<SetValues> }) {
  return (
    <fieldset>
      <legend className="mb-1 text-[17px] font-semibold text-ink">The recording</legend>
      <FormCheckbox form={form} name="inOrder">
        It is heard in order: students go ahead only to where they have heard it
      </FormCheckbox>
      <p className="mt-1 text-[13px] text-soft">
        Its words can be read at once all the same. You see how much each has heard.
      </p>
    </fieldset>
  );
}

const CHANGED = {
  told: 'What is set is changed, and the class is told.',
  quiet: 'What is set is changed; the reading says what has changed since it was published.',
} as const;

function OfSet({ form, set: { together } }: { readonly form: UseFormReturn<SetValues>; readonly set: Assignment }) {
  return (
    <>
      {together.length > 0 && <Together form={form} classes={together} />}
      <PublishAgain form={form} />
    </>
  );
}

/** Whether a change is told to the class as a new one of what is set, or stands as changed since the last. */
function PublishAgain({ form }: { readonly form: UseFormReturn<SetValues> }) {
  const told = form.watch('publish');
  return (
    <fieldset>
      <legend className="mb-1 text-[17px] font-semibold text-ink">Publish again</legend>
      <FormCheckbox form={form} name="publish">
        Tell the class; what has changed until now is no longer marked as changed
      </FormCheckbox>
      {told ? (
        <div className="mt-1.5">
          <FormCheckbox form={form} name="lookAgain">
            Count anew who has looked at it
          </FormCheckbox>
        </div>
      ) : (
        <p className="mt-1 text-[13px] text-soft">
          For small corrections: nobody is told, and the reading shows what has changed since it was published.
        </p>
      )}
    </fieldset>
  );
}

/** What somebody else made of it meanwhile; saving goes on from there. */
function StandsNow({ set }: { readonly set: Assignment }) {
  return (
    <div role="note" aria-label="What is set now" className="border-l-2 border-brick pl-2.5 text-[14px] text-soft">
      <p className="text-[13px] font-semibold text-brick">Changed elsewhere meanwhile. It says now:</p>
      <p>
        {aboutSet(set)}
        {set.opensAt && ` · opens ${dueAt(set.opensAt)}`}
        {set.dueAt && ` · due ${dueAt(set.dueAt)}`}
      </p>
      <p className="whitespace-pre-line">{set.instructions}</p>
      <p className="text-[13px]">
        Above is what you wrote. Take over what you want to keep; saving puts yours in its place.
      </p>
    </div>
  );
}

/** For the whole class, or for some of its groups. */
function ForGroups({
  form,
  groups,
}: {
  readonly form: UseFormReturn<SetValues>;
  readonly groups: readonly NamedGroup[];
}) {
  const isForAll = form.watch('groupIds').length === 0;
  return (
    <fieldset>
      <legend className="mb-1 text-[17px] font-semibold text-ink">For</legend>
      <div className="flex flex-wrap gap-x-6 gap-y-1.5">
        {groups.map(({ id, name }) => (
          <FormCheckbox key={id} form={form} name="groupIds" value={id}>
            {name}
          </FormCheckbox>
        ))}
      </div>
      <p className="mt-1 text-[13px] text-soft">
        {isForAll
          ? 'No group is chosen: it is for the whole class.'
          : 'Others in the class can read it, and nothing is asked of them.'}
      </p>
    </fieldset>
  );
}

/** From when on the students see each other's marks, and whether they write at all. */
function Others({ form }: { readonly form: UseFormReturn<SetValues> }) {
  return (
    <div>
      <FormRadios
        form={form}
        name="othersSeen"
        legend="Students see each other’s marks"
        choices={OTHERS_SEEN}
        words={SEEN_WORDS}
        isHeading
      />
      <div className="mt-3">
        <FormCheckbox form={form} name="comments">
          They may write for the class on it
        </FormCheckbox>
      </div>
      <p className="mt-1.5 text-[13px] text-soft">
        What you and other teachers write for the class is always seen; you always see what everybody wrote for it.
      </p>
    </div>
  );
}
