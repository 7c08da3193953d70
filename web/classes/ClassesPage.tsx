import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { classPutSchema, joinSchema, TINTS, type ClassLabel, type ClassRow } from '@avrelle/core/wire';
import { call } from '../data/call';
import { renew, useClasses } from '../data/queries';
import { FormAlert, FormField, useSchemaForm } from '../ui/Form';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { count } from '../ui/when';
import { DeletedClasses } from './DeletedClasses';

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
              {classes.data?.map((c) => (
                <ClassLine key={c.id} of={c} />
              ))}
              {classes.data?.length === 0 && (
                <li className="max-w-[52ch] px-[30px] py-6 text-soft">
                  You are in no class yet. Join one with the code your teacher gave you, or make one of your own.
                </li>
              )}
            </ul>
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

/** Goes to a class that was joined or made. */
function useGoing(): (made: ClassLabel) => Promise<void> {
  const client = useQueryClient();
  const navigate = useNavigate();
  return async ({ id }) => {
    await renew(client, 'classes');
    void navigate(`/classes/${id}`);
  };
}

function JoinForm() {
  const go = useGoing();
  const { form, submit, busy } = useSchemaForm(joinSchema, { code: '' }, async (body) =>
    go(await call('POST /api/classes/join', { body })),
  );
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
  const { form, submit, busy } = useSchemaForm(classPutSchema, { name: '', tint: TINTS[0] }, async (body) =>
    go(await call('PUT /api/classes/:id', { params: { id }, body })),
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
