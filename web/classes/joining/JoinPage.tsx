import { Link, useNavigate, useParams } from 'react-router';
import type { Invitation } from '@avrelle/core/wire';
import { useInvitation } from '../../data/joining-queries';
import { useWrite } from '../../data/use-write';
import { useMessages } from '../../ui/Messages';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';

/** Where a link leads: what class it is, and joining it. */
export default function JoinPage() {
  const { token = '' } = useParams();
  const found = useInvitation(token);
  return (
    <main className="grid place-items-center bg-sheet p-6">
      <div className="w-full max-w-[520px]">
        <PageHeading window="Join a class" className="text-[25px]">
          Join a class
        </PageHeading>
        <State of={found}>{found.data && <Invited by={token} to={found.data} />}</State>
      </div>
    </main>
  );
}

interface Props {
  readonly by: string;
  readonly to: Invitation;
}

function Invited({ by, to: { name, tint, teachers, joining, classId, asked } }: Props) {
  const join = useWrite('POST /api/join-link', 'classes');
  const navigate = useNavigate();
  const messages = useMessages();
  const go = (): void =>
    join.run({ body: { link: by } }, ({ id, joined }) => {
      messages.tell(joined ? `You are in ${name} now.` : `${name} has been asked. A teacher lets you in.`);
      void navigate(joined ? `/classes/${id}` : '/classes');
    });
  return (
    <div className="mt-3">
      <p className="text-[20px]">
        <Tint tint={tint}>{name}</Tint>
      </p>
      {teachers.length > 0 && <p className="mt-2 text-soft">Taught by {teachers.join(', ')}</p>}
      <p className="mt-4 max-w-[52ch]">
        {classId !== null
          ? 'You are in this class already.'
          : 'You will see what it reads and what is written for it, and its members see what you write for it. ' +
            'What you keep for yourself stays yours alone.'}
      </p>
      <div className="mt-5">
        {classId !== null && (
          <Link className="press" to={`/classes/${classId}`}>
            Open it
          </Link>
        )}
        {classId === null && asked && <p className="text-soft">You have asked. A teacher of the class lets you in.</p>}
        {classId === null && !asked && (
          <button className="press" disabled={join.isPending} onClick={go}>
            {joining === 'at_once' ? 'Join' : 'Ask to join'}
          </button>
        )}
      </div>
    </div>
  );
}
