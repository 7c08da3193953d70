import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { classPutSchema, joinSchema, TINTS, type ClassLabel, type ClassRow } from '@avrelle/core/wire';
import { useClasses } from '../data/queries';
import { useWrite } from '../data/use-write';
import { FormAlert, FormField, useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { count, day } from '../ui/when';
import { DeletedClasses } from './DeletedClasses';
import { MyRequests } from './MyRequests';

/** My classes; joining one by its code; making one. */
export default function ClassesPage() {
  const classes = useClasses();
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <div className="border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Classes</PageHeading>
      </div>
      <div className="grid min-h-0 grid-cols-[1fr_388px] max-[900px]:block max-[900px]:overflow-y-auto">
        <State of={classes}>
          <div className="min-h-0 overflow-y-auto">
            <ul className="py-1">
              {classes.data
                ?.filter((c) => c.archivedAt === null)
                .map((c) => (
                  <ClassLine key={c.id} of={c} />
                ))}
              {classes.data?.length === 0 && (
                <li className="max-w-[52ch] px-[30px] py-6 text-soft">
                  You are in no class yet. Join one with the code your teacher gave you, or make one of your own.
                </li>
              )}
            </ul>
            <MyRequests />
            <Archived of={classes.data?.filter((c) => c.archivedAt !== null) ?? []} />
            <DeletedClasses />
          </div>
        </State>
        <aside
          aria-label="Join or make a class"
          className="grid min-h-0 content-start overflow-y-auto gap-8 border-l border-rule bg-paper px-6 py-5 max-[900px]:border-l-0"
        >
          <JoinForm />
          <MakeForm />
        </aside>
      </div>
    </main>
  );
}

const ROLES = { student: 'a student', assistant: 'an assistant', teacher: 'the teacher' } as const;

function ClassLine({ of: { id, name, tint, role, people, sources, annotations } }: { readonly of: ClassRow }) {
  return (
    <li className="border-b border-rule px-[30px] py-3.5 hover:bg-wash max-[900px]:px-4">
      <h2 className="text-[18px]">
        <Link to={`/classes/${id}`}>
          <Tint tint={tint}>{name}</Tint>
        </Link>
      </h2>
      <p className="mt-1.5 text-[14px] text-soft">
        you are {ROLES[role]} · {count(people, 'person', 'people')} · {count(sources, 'reading')} ·{' '}
        {count(annotations, 'shared mark')}
      </p>
    </li>
  );
}

/** Classes that are only looked at. */
function Archived({ of: classes }: { readonly of: readonly ClassRow[] }) {
  if (classes.length === 0) return null;
  return (
    <section aria-label="Archived classes" className="px-[30px] py-5 max-[900px]:px-4">
      <h2 className="text-[15px] text-soft">Archived</h2>
      <ul>
        {classes.map(({ id, name, tint, archivedAt }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2">
            <Link to={`/classes/${id}`}>
              <Tint tint={tint}>{name}</Tint>
            </Link>
            <span className="text-[14px] text-soft">since {day(archivedAt!)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Goes to a class that was joined or made. */
function useGoing(): (made: ClassLabel) => void {
  const navigate = useNavigate();
  return ({ id }) => void navigate(`/classes/${id}`);
}

function JoinForm() {
  const go = useGoing();
  const messages = useMessages();
  const join = useWrite('POST /api/classes/join', 'classes');
  const { form, submit, busy } = useSchemaForm(joinSchema, { code: '' }, async (body) => {
    const { joined, ...label } = await join.send({ body });
    if (joined) return go(label);
    form.reset();
    messages.tell(`${label.name} has been asked. A teacher lets you in.`);
  });
  return (
    <form noValidate onSubmit={submit}>
      <h2 className="mb-2 text-[17px]">Join a class</h2>
      <FormField
        form={form}
        name="code"
        label="Code from your teacher"
        hint="six letters and digits"
        look="uppercase placeholder:normal-case"
      />
      <FormAlert form={form} />
      <button className="press mt-3" disabled={busy}>
        Join
      </button>
    </form>
  );
}

function MakeForm() {
  const go = useGoing();
  // Sent again, it is the same class.
  const [id] = useState(() => v7());
  const make = useWrite('PUT /api/classes/:id', 'classes');
  const { form, submit, busy } = useSchemaForm(classPutSchema, { name: '', tint: TINTS[0] }, async (body) =>
    go(await make.send({ params: { id }, body })),
  );
  const chosen = form.watch('tint');
  return (
    <form noValidate onSubmit={submit}>
      <h2 className="mb-2 text-[17px]">Make a class</h2>
      <FormField form={form} name="name" label="Name" hint="Field Course B" />
      <fieldset className="mt-3 flex flex-wrap gap-2">
        <legend className="text-[14px] text-soft">Colour</legend>
        {TINTS.map((tint) => (
          <label key={tint} className={`cursor-pointer ${chosen === tint ? 'outline-2 outline-tide' : ''}`}>
            <input type="radio" value={tint} className="sr-only" {...form.register('tint')} />
            <Tint tint={tint}>{tint}</Tint>
          </label>
        ))}
      </fieldset>
      <FormAlert form={form} />
      <button className="press mt-4" disabled={busy}>
        Make it
      </button>
    </form>
  );
}
