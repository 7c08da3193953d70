import { useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { TINTS, type ClassLabel } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useClasses } from '../data/queries';
import { Alert } from '../ui/Alert';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { count } from '../ui/when';
import { DeletedClasses } from './DeletedClasses';
import { PageHeading } from '../ui/PageHeading';

/** My classes; joining one by its code; making one. */
export default function ClassesPage() {
  const classes = useClasses();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [wrong, setWrong] = useState<{ form: 'join' | 'make'; words: string }>();
  const [tint, setTint] = useState<(typeof TINTS)[number]>(TINTS[0]);
  const go = async (form: 'join' | 'make', work: Promise<ClassLabel>): Promise<void> => {
    try {
      const { id } = await work;
      await renew(client, 'classes');
      void navigate(`/classes/${id}`);
    } catch (error) {
      setWrong({ form, words: wordsOf(error) });
    }
  };
  const value = (event: FormEvent<HTMLFormElement>, name: string): string => {
    event.preventDefault();
    return String(new FormData(event.currentTarget).get(name) ?? '');
  };
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
                <li key={c.id} className="border-b border-rule px-[30px] py-3.5 hover:bg-wash max-[900px]:px-4">
                  <h2 className="text-[18px]">
                    <Link to={`/classes/${c.id}`}>
                      <Tint tint={c.tint}>{c.name}</Tint>
                    </Link>
                  </h2>
                  <p className="mt-1.5 text-[14px] text-soft">
                    {c.role === 'student'
                      ? 'you are a student'
                      : `you are ${c.role === 'assistant' ? 'an assistant' : 'the teacher'}`}{' '}
                    · {count(c.people, 'person', 'people')} · {count(c.sources, 'reading')} ·{' '}
                    {count(c.annotations, 'shared mark')}
                  </p>
                </li>
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
          <form
            noValidate
            onSubmit={(e) => void go('join', call('POST /api/classes/join', { body: { code: value(e, 'code') } }))}
          >
            <h2 className="text-[17px]">Join a class</h2>
            <label className="mt-2 grid gap-1 text-[14px] text-soft">
              Code from your teacher
              <input
                name="code"
                autoComplete="off"
                placeholder="six letters and digits"
                className="field text-[15px] uppercase placeholder:normal-case"
              />
            </label>
            {wrong?.form === 'join' && (
              <div className="mt-2">
                <Alert>{wrong.words}</Alert>
              </div>
            )}
            <button className="press mt-3">Join</button>
          </form>
          <form
            noValidate
            onSubmit={(e) =>
              void go(
                'make',
                call('PUT /api/classes/:id', { params: { id: v7() }, body: { name: value(e, 'name'), tint } }),
              )
            }
          >
            <h2 className="text-[17px]">Make a class</h2>
            <label className="mt-2 grid gap-1 text-[14px] text-soft">
              Name
              <input name="name" placeholder="Field Course B" className="field text-[15px]" />
            </label>
            <fieldset className="mt-3 flex flex-wrap gap-2">
              <legend className="text-[14px] text-soft">Colour</legend>
              {TINTS.map((t) => (
                <label key={t} className={`cursor-pointer ${tint === t ? 'outline-2 outline-tide' : ''}`}>
                  <input
                    type="radio"
                    name="tint"
                    className="sr-only"
                    checked={tint === t}
                    onChange={() => setTint(t)}
                  />
                  <Tint tint={t}>{t}</Tint>
                </label>
              ))}
            </fieldset>
            {wrong?.form === 'make' && (
              <div className="mt-2">
                <Alert>{wrong.words}</Alert>
              </div>
            )}
            <button className="press mt-4">Make it</button>
          </form>
        </aside>
      </div>
    </main>
  );
}
