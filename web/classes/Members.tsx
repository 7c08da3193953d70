import { useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import type { NamedGroup } from '@avrelle/core/audience';
import { CLASS_ROLES, type ClassDetail, type Member, type PersonId } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { useWrite } from '../data/use-write';
import { FollowItem } from '../notifications/FollowItem';
import { useFollow } from '../notifications/use-follow';
import { Confirm } from '../ui/Confirm';
import { DataTable, type PlainColumn } from '../ui/DataTable';
import { Menu } from '../ui/Menu';

const A_ROLE: Readonly<Record<Member['role'], string>> = {
  teacher: 'a teacher',
  assistant: 'an assistant',
  student: 'a student',
};

/** Who is in a class, how much they wrote, and, for its teachers, as what they are in it. */
export function Members({ of: { id, name, role, members, groups } }: { readonly of: ClassDetail }) {
  const me = useMe();
  const [leaving, setLeaving] = useState<Member>();
  const put = useWrite('PUT /api/classes/:id/members/:personId', 'classes');
  const remove = useWrite('DELETE /api/classes/:id/members/:personId', 'classes');
  const following = useFollow();
  const make = (member: Member, to: Member['role']): void =>
    put.run({ params: { id, personId: member.id }, body: { role: to } });
  const columns = [
    nameColumn(groups),
    ...COLUMNS,
    role === 'teacher' ? changeColumn(me.id, make, setLeaving) : followColumn(me.id, following),
  ];
  return (
    <>
      <DataTable
        label="Members"
        columns={columns}
        rows={members}
        idOf={(member) => member.id}
        numbers={['marks', 'answers', 'change']}
      />
      {leaving && (
        <Confirm
          title={`Remove ${leaving.name} from “${name}”?`}
          action="Remove"
          onClose={() => setLeaving(undefined)}
          run={async () => {
            await remove.send({ params: { id, personId: leaving.id } });
            setLeaving(undefined);
          }}
        >
          <p>They will no longer see what is read and written in the class. What they wrote for it stays there.</p>
          <p>With the code they can join again: make a new one, or let nobody join, if they should not.</p>
        </Confirm>
      )}
    </>
  );
}

const nameColumn = (groups: readonly NamedGroup[]): PlainColumn<Member> => ({
  id: 'name',
  header: 'Name',
  cell: ({ row: { original } }) => {
    const group = groups.find(({ id }) => id === original.groupId)?.name;
    const beside = original.role === 'student' ? group : original.role;
    return (
      <span className="whitespace-normal">
        {original.name}
        {beside && <span className="text-soft"> · {beside}</span>}
      </span>
    );
  },
});

const COLUMNS: readonly PlainColumn<Member>[] = [
  { id: 'marks', header: 'Marks', cell: ({ row }) => row.original.annotations || '–' },
  { id: 'answers', header: 'Answers', cell: ({ row }) => row.original.replies || '–' },
];

/** What somebody writes is told to me, or no longer. */
const followColumn = (me: PersonId, { isFollowed, set }: ReturnType<typeof useFollow>): PlainColumn<Member> => ({
  id: 'change',
  header: () => <span className="sr-only">Follow</span>,
  cell: ({ row: { original } }) => {
    const { id, name } = original;
    if (id === me) return <span className="text-soft">you</span>;
    const followed = isFollowed({ type: 'person', id, words: name });
    return (
      <button
        aria-pressed={followed}
        title={followed ? 'You are told what is new by them' : 'Be told what is new by them'}
        className={followed ? 'font-semibold text-tide' : 'text-soft hover:text-ink'}
        onClick={() => set({ type: 'person', id, words: name }, !followed)}
      >
        {followed ? 'Following' : 'Follow'}
        <span className="sr-only"> {name}</span>
      </button>
    );
  },
});

const changeColumn = (
  me: PersonId,
  make: (member: Member, to: Member['role']) => void,
  remove: (member: Member) => void,
): PlainColumn<Member> => ({
  id: 'change',
  header: () => <span className="sr-only">Change</span>,
  cell: ({ row: { original } }) =>
    original.id === me ? (
      <span className="text-soft">you</span>
    ) : (
      <Menu words="Change" about={original.name}>
        {CLASS_ROLES.filter((to) => to !== original.role).map((to) => (
          <DropdownMenu.Item key={to} className="item" onSelect={() => make(original, to)}>
            Make {A_ROLE[to]}
          </DropdownMenu.Item>
        ))}
        <FollowItem what={{ type: 'person', id: original.id, words: original.name }}>Follow what they write</FollowItem>
        <DropdownMenu.Item className="item" onSelect={() => remove(original)}>
          Remove from the class…
        </DropdownMenu.Item>
      </Menu>
    ),
});
