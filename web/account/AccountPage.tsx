import { useState, type FormEvent } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { ValidationError, type AnyObjectSchema } from 'yup';
import { signInSchema, signUpSchema, type Me, type Welcome } from '@avrelle/core/wire';
import { ProblemError, request } from '../data/api';
import { keys } from '../data/queries';
import { Alert } from '../ui/Alert';

interface Wrong {
  readonly field?: string | undefined;
  readonly words: string;
}

/** Signing in, or making an account where that is allowed; the first account of an installation is its administrator's. */
export default function AccountPage({ welcome, back }: { welcome: Welcome; back: string }) {
  const [making, setMaking] = useState(welcome.firstAccount);
  const [wrong, setWrong] = useState<Wrong>();
  const client = useQueryClient();
  const navigate = useNavigate();
  const enter = useMutation({
    mutationFn: (values: Record<string, string>) =>
      request<Me>('POST', making ? '/api/people' : '/api/session', values),
    onSuccess: async () => {
      void navigate(back);
      await client.invalidateQueries({ queryKey: keys.welcome });
    },
    onError: (error) =>
      setWrong({ words: error.message, field: error instanceof ProblemError ? error.problem.field : undefined }),
  });
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const values = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    const found = firstWrong(making ? signUpSchema : signInSchema, values);
    setWrong(found);
    if (!found) enter.mutate(values);
  };
  const swap = (): void => {
    setMaking(!making);
    setWrong(undefined);
  };
  return (
    <main className="grid min-h-full place-items-center p-6">
      <div className="grid w-full max-w-[760px] grid-cols-[1fr_320px] items-center gap-14 max-[760px]:grid-cols-1">
        <div>
          <p className="font-read text-[44px] font-semibold italic leading-none text-tide">Avrelle</p>
          <p className="mt-4 font-read text-[20px] leading-[30px]">
            Keep what you read. <span className="kind-claim">Mark it</span>, write in the{' '}
            <span className="kind-evidence">margin</span>, <span className="kind-question">ask</span>, answer, and find{' '}
            <span className="kind-keep">every passage</span> again.
          </p>
        </div>
        <form
          onSubmit={submit}
          noValidate
          className="grid gap-4 border-l border-strong pl-8 max-[760px]:border-l-0 max-[760px]:pl-0"
        >
          <h1 className="text-[23px]">
            {making ? (welcome.firstAccount ? 'The first account' : 'Make an account') : 'Sign in'}
          </h1>
          {welcome.firstAccount && making && <p className="text-[14px] text-soft">It becomes the administrator’s.</p>}
          {making && <Field name="name" label="Your name, as others will see it" autoComplete="name" wrong={wrong} />}
          <Field name="email" label="E-mail address" type="email" autoComplete="username" wrong={wrong} />
          <Field
            name="password"
            label={making ? 'Password, at least 10 characters' : 'Password'}
            type="password"
            autoComplete={making ? 'new-password' : 'current-password'}
            wrong={wrong}
          />
          {wrong && !wrong.field && <Alert>{wrong.words}</Alert>}
          <div className="flex items-center gap-5">
            <button className="press" disabled={enter.isPending}>
              {enter.isPending ? 'One moment…' : making ? 'Make the account' : 'Sign in'}
            </button>
            {welcome.signUp && !welcome.firstAccount && (
              <button type="button" className="act text-[14px]" onClick={swap}>
                {making ? 'I have an account' : 'Make an account'}
              </button>
            )}
          </div>
        </form>
      </div>
    </main>
  );
}

function Field({
  name,
  label,
  type = 'text',
  autoComplete,
  wrong,
}: {
  name: string;
  label: string;
  type?: string;
  autoComplete: string;
  wrong: Wrong | undefined;
}) {
  const mine = wrong?.field === name ? wrong.words : undefined;
  return (
    <label className="grid gap-1 text-[14px] text-soft">
      {label}
      <input
        name={name}
        type={type}
        autoComplete={autoComplete}
        aria-invalid={mine ? true : undefined}
        className="field text-[15px]"
      />
      <Alert>{mine}</Alert>
    </label>
  );
}

function firstWrong(schema: AnyObjectSchema, values: unknown): Wrong | undefined {
  try {
    schema.validateSync(values, { abortEarly: true });
    return undefined;
  } catch (error) {
    return error instanceof ValidationError ? { field: error.path, words: error.message } : { words: String(error) };
  }
}
