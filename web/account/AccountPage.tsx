import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { startingKind, type KindCode } from '@avrelle/core/legend';
import {
  signInSchema,
  signUpSchema,
  type Me,
  type SamplePerson,
  type SignIn,
  type SignUp,
  type Welcome,
} from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { renew } from '../data/queries';
import { useMessages } from '../ui/Messages';
import { FormAlert, FormField, useSchemaForm } from '../ui/Form';
import { Marked } from '../ui/Sign';
import { useWrite } from '../data/use-write';
import { PageHeading } from '../ui/PageHeading';

/** Signing in, or making an account where that is allowed; the first account of an installation is its administrator's. */
export default function AccountPage({ welcome, back }: { welcome: Welcome; back: string }) {
  const [making, setMaking] = useState(welcome.firstAccount);
  const client = useQueryClient();
  const navigate = useNavigate();
  const signingUp = useWrite('POST /api/people');
  const signingIn = useWrite('POST /api/session');
  const enter = async (asked: Promise<Me>): Promise<void> => {
    await asked;
    void navigate(back);
    await renew(client, 'welcome');
  };
  const signIn = (body: SignIn): Promise<void> => enter(signingIn.send({ body }));
  const swap =
    welcome.signUp && !welcome.firstAccount ? (
      <button type="button" className="act text-[14px]" onClick={() => setMaking(!making)}>
        {making ? 'I have an account' : 'Make an account'}
      </button>
    ) : null;
  return (
    <main className="grid min-h-full place-items-center p-6">
      <div className="grid w-full max-w-[760px] grid-cols-[1fr_320px] items-center gap-14 max-[760px]:grid-cols-1">
        <div>
          <p className="font-read text-[44px] font-semibold italic leading-none text-tide">Avrelle</p>
          <p className="mt-4 font-read text-[20px] leading-[30px]">
            Keep what you read. <Kind code="claim">Mark it</Kind>, write in the <Kind code="evidence">margin</Kind>,{' '}
            <Kind code="question">ask</Kind>, answer, and find <Kind code="keep">every passage</Kind> again.
          </p>
        </div>
        {making ? (
          <SignUpForm first={welcome.firstAccount} send={(body) => enter(signingUp.send({ body }))} swap={swap} />
        ) : (
          <SignInForm send={signIn} swap={swap} />
        )}
        {welcome.samples.length > 0 && <Samples people={welcome.samples} onBe={signIn} />}
      </div>
    </main>
  );
}

interface SamplesProps {
  readonly people: readonly SamplePerson[];
  onBe(person: SignIn): Promise<void>;
}

/** In a demo: one click, and one is somebody whose work is there already. */
function Samples({ people, onBe }: SamplesProps) {
  const messages = useMessages();
  return (
    <section aria-labelledby="samples" className="col-span-full border-t border-rule pt-6">
      <h2 id="samples" className="text-[17px]">
        This is a demo. Look around as:
      </h2>
      <ul className="mt-3 grid grid-cols-2 gap-x-14 max-[760px]:grid-cols-1">
        {people.map(({ name, about, email, password }) => (
          <li key={email} className="border-t border-rule">
            <button
              className="group grid w-full py-3 text-left"
              onClick={() => void onBe({ email, password }).catch((error: unknown) => messages.warn(wordsOf(error)))}
            >
              <span className="font-semibold text-tide group-hover:underline">{name}</span>
              <span className="text-[14px] text-soft">{about}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Words as they look when marked with a kind of the starting Legend. */
function Kind({ code, children }: { readonly code: KindCode; readonly children: string }) {
  return <Marked look={startingKind(code)!}>{children}</Marked>;
}

const LOOK = 'grid gap-4 border-l border-strong pl-8 max-[760px]:border-l-0 max-[760px]:pl-0';

interface FormProps<Values> {
  readonly send: (values: Values) => Promise<void>;
  /** To the other form, where there is a choice. */
  readonly swap: React.ReactNode;
}

function SignInForm({ send, swap }: FormProps<SignIn>) {
  const { form, submit, busy } = useSchemaForm<SignIn>(signInSchema, { email: '', password: '' }, send);
  return (
    <form onSubmit={submit} noValidate className={LOOK}>
      <PageHeading>Sign in</PageHeading>
      <FormField form={form} name="email" label="E-mail address" type="email" autoComplete="username" />
      <FormField form={form} name="password" label="Password" type="password" autoComplete="current-password" />
      <FormAlert form={form} />
      <div className="flex items-center gap-5">
        <button className="press" disabled={busy}>
          {busy ? 'Loading…' : 'Sign in'}
        </button>
        {swap}
      </div>
    </form>
  );
}

function SignUpForm({ first, send, swap }: FormProps<SignUp> & { readonly first: boolean }) {
  const { form, submit, busy } = useSchemaForm<SignUp>(signUpSchema, { email: '', name: '', password: '' }, send);
  return (
    <form onSubmit={submit} noValidate className={LOOK}>
      <PageHeading>{first ? 'The first account' : 'Make an account'}</PageHeading>
      {first && <p className="text-[14px] text-soft">It becomes the administrator’s.</p>}
      <FormField form={form} name="name" label="Your name, as others will see it" autoComplete="name" />
      <FormField form={form} name="email" label="E-mail address" type="email" autoComplete="username" />
      <FormField
        form={form}
        name="password"
        label="Password, at least 10 characters"
        type="password"
        autoComplete="new-password"
      />
      <FormAlert form={form} />
      <div className="flex items-center gap-5">
        <button className="press" disabled={busy}>
          {busy ? 'Loading…' : 'Make the account'}
        </button>
        {swap}
      </div>
    </form>
  );
}
