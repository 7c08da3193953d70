import type { ReactNode } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { nameChangeSchema, passwordChangeSchema } from '@avrelle/core/wire';
import { sessionsQuery } from '../data/queries';
import { useWrite } from '../data/use-write';
import { FormAlert, FormField, useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { when } from '../ui/when';
import { AccessKeys } from './AccessKeys';
import { Calendar } from './Calendar';
import { browserName } from './browser-name';
import { useMe } from './me';
import { PageHeading } from '../ui/PageHeading';

/** One's own account: name, password, where one is signed in, and what other programs may do. */
export default function YourAccountPage() {
  const me = useMe();
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <header className="flex flex-wrap items-baseline gap-x-6 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Your account</PageHeading>
        <p className="text-[14px] text-soft">{me.email}</p>
        {me.role === 'administrator' && (
          <Link to="/people" className="act ml-auto text-[14px]">
            All accounts
          </Link>
        )}
      </header>
      <div className="min-h-0 overflow-y-auto px-[30px] max-[900px]:px-4">
        <div className="max-w-[860px]">
          <Part title="Name" about="Others see it beside your notes.">
            <NameForm />
          </Part>
          <Part title="Password" about="You stay signed in here; everywhere else you will have to sign in again.">
            <PasswordForm />
          </Part>
          <Part
            title="Where you are signed in"
            about="Where you do not know the browser, sign it out and change your password."
          >
            <Sessions />
          </Part>
          <Part title="Calendar" about="What is due in your classes, in the calendar you use.">
            <Calendar />
          </Part>
          <Part
            title="Access keys"
            about="An access key lets another program read or write for you, until it ends. It cannot change your account."
          >
            <AccessKeys />
          </Part>
        </div>
      </div>
    </main>
  );
}

function Part({
  title,
  about,
  children,
}: {
  readonly title: string;
  readonly about: string;
  readonly children: ReactNode;
}) {
  return (
    <section
      aria-label={title}
      className="grid grid-cols-[230px_1fr] gap-x-10 gap-y-3 border-b border-rule py-6 max-[760px]:grid-cols-1"
    >
      <div>
        <h2 className="text-[17px]">{title}</h2>
        <p className="mt-1 text-[14px] text-soft">{about}</p>
      </div>
      <div className="min-w-0">{children}</div>
    </section>
  );
}

function NameForm() {
  const me = useMe();
  const put = useWrite('PATCH /api/account', 'welcome');
  const messages = useMessages();
  const { form, submit, busy } = useSchemaForm(nameChangeSchema, { name: me.name }, async (body) => {
    await put.send({ body });
    messages.tell('Your name is changed.');
  });
  return (
    <form noValidate onSubmit={submit} className="grid max-w-[340px] gap-3">
      <FormField form={form} name="name" label="Your name" autoComplete="name" />
      <FormAlert form={form} />
      <button className="press justify-self-start" disabled={busy}>
        Save
      </button>
    </form>
  );
}

function PasswordForm() {
  const put = useWrite('PUT /api/account/password', 'sessions');
  const messages = useMessages();
  const { form, submit, busy } = useSchemaForm(passwordChangeSchema, { current: '', password: '' }, async (body) => {
    await put.send({ body });
    form.reset();
    messages.tell('Your password is changed.');
  });
  return (
    <form noValidate onSubmit={submit} className="grid max-w-[340px] gap-3">
      <FormField form={form} name="current" type="password" autoComplete="current-password" label="Current password" />
      <FormField
        form={form}
        name="password"
        type="password"
        autoComplete="new-password"
        label="New password, at least 10 characters"
      />
      <FormAlert form={form} />
      <button className="press justify-self-start" disabled={busy}>
        Change password
      </button>
    </form>
  );
}

function Sessions() {
  const sessions = useQuery(sessionsQuery);
  const end = useWrite('DELETE /api/account/sessions/:id', 'sessions');
  const endOthers = useWrite('DELETE /api/account/sessions', 'sessions');
  return (
    <State of={sessions}>
      <ul>
        {sessions.data?.map(({ id, agent, createdAt, seenAt, here }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2 last:border-b-0">
            <span>{browserName(agent)}</span>
            <span className="text-[14px] text-soft">
              since {when(createdAt)}
              {here ? '' : `, last seen ${when(seenAt)}`}
            </span>
            {here ? (
              <span className="ml-auto text-[14px] text-soft">this one</span>
            ) : (
              <button className="act ml-auto text-[14px]" onClick={() => end.run({ params: { id } })}>
                Sign out<span className="sr-only"> {browserName(agent)}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      {(sessions.data?.length ?? 0) > 2 && (
        <button className="act mt-3 text-[14px]" onClick={() => endOthers.run(undefined)}>
          Sign out everywhere else
        </button>
      )}
    </State>
  );
}
