import { useEffect, useState } from 'react';
import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { MOST_GROUPS, type ClassDetail } from '@avrelle/core/wire';
import { useMe } from '../../account/me';
import { useWrite } from '../../data/use-write';
import { Alert } from '../../ui/Alert';
import { FormAlert, useSchemaForm } from '../../ui/Form';
import { useKept } from '../../ui/kept';
import { KeptBack } from '../../ui/KeptBack';
import { useMessages } from '../../ui/Messages';
import { count } from '../../ui/when';
import { atRandom, groupsSchema, newGroup, putOf, valuesOf, type GroupsValues } from './groups-form';

type Form = UseFormReturn<GroupsValues>;

/** Groups by hand or at random; nothing is changed before it is saved. */
export function GroupsForm({ of: c }: { readonly of: ClassDetail }) {
  const put = useWrite('PUT /api/classes/:id/groups', 'classes');
  const messages = useMessages();
  const kept = useKept<GroupsValues>(useMe().id, `groups/${c.id}`, c.groupsVersion);
  const [begun, setBegun] = useState(kept.upon ?? c.groupsVersion);
  const goOn = (version: number): void => {
    setBegun(version);
    kept.goOn(version);
  };
  const send = async (values: GroupsValues): Promise<void> => {
    const { version } = await put.send({ params: { id: c.id }, body: putOf(values, begun) });
    goOn(version);
    // What was changed meanwhile stays.
    form.reset(values, { keepValues: true });
    messages.tell('The groups are saved. Students see their own.');
  };
  const { form, submit, busy } = useSchemaForm<GroupsValues>(groupsSchema, valuesOf(c), send, kept);
  const isBehind = !busy && c.groupsVersion > begun;
  useWhoIsIn(form, c);
  const takeOver = (): void => {
    goOn(c.groupsVersion);
    form.reset(valuesOf(c));
  };
  return (
    <form noValidate onSubmit={submit} className="grid min-h-0 grid-rows-[1fr_auto]">
      <div className="grid min-h-0 grid-cols-[1fr_388px] max-[900px]:block max-[900px]:overflow-y-auto">
        <People form={form} />
        <aside
          aria-label="The groups"
          className="grid min-h-0 content-start gap-6 overflow-y-auto border-l border-rule bg-paper px-6 py-5 max-[900px]:border-l-0 max-[900px]:px-4"
        >
          <Groups form={form} />
          <AtRandom form={form} />
        </aside>
      </div>
      <div className="flex flex-wrap items-center gap-5 border-t border-strong bg-paper px-[30px] py-2.5 max-[900px]:px-4">
        <button className="press" disabled={busy || isBehind}>
          Save the groups
        </button>
        {isBehind && (
          <span role="note" className="text-[14px]">
            Somebody else changed the groups meanwhile.{' '}
            <button type="button" className="act" onClick={takeOver}>
              Show theirs
            </button>
          </span>
        )}
        <KeptBack form={form} kept={kept} onStart={takeOver} />
        <FormAlert form={form} />
      </div>
    </form>
  );
}

/** Who joins meanwhile stands among the others, in no group yet; who left does no more. */
function useWhoIsIn(form: Form, c: ClassDetail): void {
  useEffect(() => {
    const listed = form.getValues('people');
    const now = valuesOf(c).people;
    const isIn = new Set(now.map(({ personId }) => personId));
    const known = new Set(listed.map(({ personId }) => personId));
    const further = now.filter(({ personId }) => !known.has(personId));
    const left = listed.filter(({ personId }) => isIn.has(personId));
    if (further.length > 0 || left.length < listed.length) form.setValue('people', [...left, ...further]);
  }, [form, c]);
}

/** Each student with their group. */
function People({ form }: { readonly form: Form }) {
  const people = form.watch('people');
  const groups = form.watch('groups');
  return (
    <section aria-label="Students" className="min-h-0 overflow-y-auto px-[30px] py-4 max-[900px]:px-4">
      {people.length === 0 && <p className="text-soft">No student is in the class yet.</p>}
      <ul>
        {people.map(({ personId, name, group }, n) => (
          <li
            key={personId}
            className="flex flex-wrap items-center gap-x-5 border-t border-rule py-1.5 first:border-t-0"
          >
            <span className="w-[220px] max-[600px]:w-[120px]">{name}</span>
            <select
              aria-label={`Group of ${name}`}
              className={`field !w-[220px] max-[600px]:!w-[170px] text-[15px] ${group === '' ? 'text-soft' : ''}`}
              {...form.register(`people.${n}.group`)}
            >
              <option value="">in no group</option>
              {groups.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Their names, how many are in each, and further ones. */
function Groups({ form }: { readonly form: Form }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'groups', keyName: 'key' });
  const people = form.watch('people');
  const wrong = form.formState.errors.groups;
  const dissolve = (n: number): void => {
    const { id } = fields[n]!;
    people.forEach((one, at) => one.group === id && form.setValue(`people.${at}.group`, ''));
    remove(n);
  };
  return (
    <section aria-label="Groups">
      <h2 className="text-[17px]">{fields.length === 0 ? 'No groups yet' : count(fields.length, 'group')}</h2>
      <ul>
        {fields.map(({ key, id }, n) => (
          <li key={key} className="flex items-baseline gap-3 border-b border-rule py-1.5">
            <input
              aria-label={`Name of group ${n + 1}`}
              aria-invalid={wrong?.[n]?.name ? true : undefined}
              className="field min-w-0 flex-1 text-[15px]"
              {...form.register(`groups.${n}.name`)}
            />
            <span className="w-[70px] text-right text-[14px] text-soft">
              {count(people.filter(({ group }) => group === id).length, 'student')}
            </span>
            <button type="button" className="text-[14px] text-soft hover:text-ink" onClick={() => dissolve(n)}>
              Remove<span className="sr-only"> group {n + 1}</span>
            </button>
          </li>
        ))}
      </ul>
      <Alert>
        {wrong?.message ?? wrong?.root?.message ?? fields.map((_, n) => wrong?.[n]?.name?.message).find(Boolean)}
      </Alert>
      {fields.length < MOST_GROUPS && (
        <button type="button" className="act mt-2" onClick={() => append(newGroup(form.getValues('groups')))}>
          Add a group
        </button>
      )}
      <p className="mt-2 text-[13px] text-soft">
        What was written for a group that is removed stays with whoever wrote it, and the teachers.
      </p>
    </section>
  );
}

function AtRandom({ form }: { readonly form: Form }) {
  const [size, setSize] = useState('4');
  const number = Number(size);
  const fits = Number.isInteger(number) && number >= 1 && number <= MOST_GROUPS;
  const deal = (): void => {
    const values = atRandom(form.getValues(), number, Math.random);
    form.setValue('groups', values.groups, { shouldDirty: true });
    form.setValue('people', values.people, { shouldDirty: true });
  };
  return (
    <section aria-label="At random">
      <h2 className="text-[17px]">At random</h2>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <label className="grid gap-1 text-[14px] text-soft">
          How many groups
          <input
            type="number"
            min={1}
            max={MOST_GROUPS}
            value={size}
            onChange={({ target }) => setSize(target.value)}
            className="field !w-[90px] text-[15px]"
          />
        </label>
        <button type="button" className="act" disabled={!fits} onClick={deal}>
          Deal everybody anew
        </button>
      </div>
      <p className="mt-1 text-[13px] text-soft">Groups are as even as they can be. Look, change by hand, then save.</p>
    </section>
  );
}
