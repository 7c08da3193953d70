import { useDeferredValue, useState } from 'react';
import { useInfiniteQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { peopleQuery } from '../data/queries';
import { useWrite } from '../data/use-write';
import { DataTable, type PlainColumn } from '../ui/DataTable';
import { Menu } from '../ui/Menu';
import { State } from '../ui/State';
import { count, day, when } from '../ui/when';
import { useMe } from './me';
import { AccountDialogs, type Account, type AskedOfAccount } from './AccountDialogs';
import { PageHeading } from '../ui/PageHeading';

/** All accounts of this installation, for its administrators. */
export default function PeoplePage() {
  const [search, setSearch] = useState('');
  const people = useInfiniteQuery({ ...peopleQuery(useDeferredValue(search)), placeholderData: (before) => before });
  const [asked, setAsked] = useState<AskedOfAccount>();
  const open = useWrite('DELETE /api/people/:id/suspension', 'people');
  const resume = ({ id }: Account): void => open.run({ params: { id } });
  const rows = people.data?.pages.flatMap((page) => page.people) ?? [];
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <header className="flex flex-wrap items-baseline gap-x-6 gap-y-2 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>All accounts</PageHeading>
        <p role="status" className="text-[14px] text-soft">
          {people.data && count(people.data.pages[0]!.total, 'account')}
        </p>
        <label className="ml-auto flex items-baseline gap-2 text-[14px] text-soft">
          Name or e-mail address
          <input type="search" className="field w-[220px]" value={search} onChange={(e) => setSearch(e.target.value)} />
        </label>
        <Link to="/account" className="act text-[14px]">
          Your account
        </Link>
      </header>
      <div className="min-h-0 overflow-auto px-[30px] py-4 max-[900px]:px-4">
        <State of={people}>
          {rows.length === 0 ? (
            <p className="py-4 text-soft">No account has that in its name or address.</p>
          ) : (
            <DataTable
              label="Accounts"
              columns={columnsOf(setAsked, resume)}
              rows={rows}
              idOf={({ id }) => id}
              numbers={['sources', 'classes', 'actions']}
            />
          )}
          {people.hasNextPage && (
            <button className="act mt-4" disabled={people.isFetching} onClick={() => void people.fetchNextPage()}>
              Show more
            </button>
          )}
        </State>
      </div>
      {asked && <AccountDialogs {...asked} onClose={() => setAsked(undefined)} />}
    </main>
  );
}

function columnsOf(ask: (asked: AskedOfAccount) => void, resume: (account: Account) => void): PlainColumn<Account>[] {
  return [
    {
      id: 'name',
      header: 'Name',
      cell: ({ row: { original } }) => (
        <>
          {original.name}
          {original.role === 'administrator' && <span className="text-soft"> · administrator</span>}
          {original.suspended && <span className="text-brick"> · suspended</span>}
        </>
      ),
    },
    { id: 'email', header: 'E-mail address', cell: ({ row }) => row.original.email },
    { id: 'sources', header: 'Sources', cell: ({ row }) => row.original.sources || '–' },
    { id: 'classes', header: 'Classes', cell: ({ row }) => row.original.classes || '–' },
    { id: 'since', header: 'Since', cell: ({ row }) => day(row.original.createdAt) },
    {
      id: 'seen',
      header: 'Last seen',
      cell: ({ row }) => (row.original.seenAt ? when(row.original.seenAt) : 'not lately'),
    },
    {
      id: 'actions',
      header: () => <span className="sr-only">What can be done</span>,
      cell: ({ row }) => <AccountMenu account={row.original} ask={ask} resume={resume} />,
    },
  ];
}

interface AccountMenuProps {
  readonly account: Account;
  readonly ask: Parameters<typeof columnsOf>[0];
  readonly resume: (account: Account) => void;
}

function AccountMenu({ account, ask, resume }: AccountMenuProps) {
  if (account.id === useMe().id) return <span className="text-soft">you</span>;
  return (
    <Menu words="Change" about={account.name}>
      {account.suspended ? (
        <DropdownMenu.Item className="item" onSelect={() => resume(account)}>
          Open it again
        </DropdownMenu.Item>
      ) : (
        <DropdownMenu.Item className="item" onSelect={() => ask({ what: 'suspend', account })}>
          Suspend…
        </DropdownMenu.Item>
      )}
      <DropdownMenu.Item className="item" onSelect={() => ask({ what: 'reset', account })}>
        New password…
      </DropdownMenu.Item>
    </Menu>
  );
}
