import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { NavLink, useLocation, useNavigate, useSearchParams } from 'react-router';
import { useMe } from './account/me';
import { call } from './data/call';
import { useDesk } from './data/queries';
import { useWidth } from './ui/use-width';
import { setTheme, useTheme } from './theme/use-theme';
import { FIND_FIELD } from './ui/find-field';
import { shortName } from './ui/when';

const PAGES = [
  ['/desk', 'Desk'],
  ['/library', 'Library'],
  ['/classes', 'Classes'],
  ['/notes', 'Notes'],
  ['/review', 'Review'],
] as const;

const HEAD =
  'flex items-baseline gap-[22px] border-b border-strong px-6 pb-[9px] pt-[11px] ' +
  'max-[900px]:gap-4 max-[900px]:px-3 max-[600px]:gap-3 max-[380px]:gap-1.5 max-[380px]:px-2';
const HERE = 'border-b-2 border-tide pb-[3px] text-ink';
const FIND =
  'ml-auto flex w-[230px] items-baseline border-b border-(--strand) pb-0.5 focus-within:border-tide ' +
  'max-[600px]:w-0 max-[600px]:min-w-[60px] max-[600px]:flex-1 max-[380px]:min-w-[34px]';

/** The places of Avrelle, the way to find anything, and one's own name. */
export function Navigation({ connected, waits }: { connected: boolean; waits: boolean }) {
  const { unseen = 0, cards = 0 } = useDesk().data ?? {};
  const wide = useWidth(461);
  const told: Readonly<Record<string, readonly [number, string]>> = {
    '/desk': [unseen, 'new'],
    '/review': [cards, 'due'],
  };
  return (
    <header className={HEAD}>
      <span className="mr-2.5 font-read text-[21px] font-semibold italic text-tide max-[700px]:hidden">Avrelle</span>
      {wide ? (
        <nav aria-label="Main" className="flex items-baseline gap-[22px] max-[900px]:gap-4">
          {PAGES.map(([to, name]) => (
            <NavLink key={to} to={to} className={({ isActive }) => (isActive ? HERE : 'text-soft hover:text-ink')}>
              {name}
              <Count of={told[to]} />
            </NavLink>
          ))}
        </nav>
      ) : (
        <Places told={told} />
      )}
      <span role="status" className="text-[13px] text-brick empty:hidden">
        {[!connected && 'no connection', waits && 'not sent yet'].filter(Boolean).join(', ')}
      </span>
      <FindField />
      <MyMenu />
    </header>
  );
}

type Told = readonly [number: number, of: string];

function Count({ of }: { of: Told | undefined }) {
  if (!of || of[0] === 0) return null;
  return (
    <sup className="ml-0.5 text-[12px] font-bold text-brick" aria-label={of.join(' ')}>
      {of[0]}
    </sup>
  );
}

/** On a narrow screen the places are under the name of the one where one is. */
function Places({ told }: { told: Readonly<Record<string, Told>> }) {
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const here = PAGES.find(([to]) => pathname.startsWith(to));
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="whitespace-nowrap font-semibold">
        {here?.[1] ?? 'Go to'} <span aria-hidden="true">▾</span>
        <Count of={told['/desk']} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={10} className="over min-w-[180px] py-1.5 text-[15px]">
          {PAGES.map(([to, name]) => (
            <DropdownMenu.Item key={to} className="item" onSelect={() => void navigate(to)}>
              {name}
              <Count of={told[to]} />
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function FindField() {
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const finding = useLocation().pathname === '/find';
  const asked = finding ? (params.get('q') ?? '') : '';
  const [words, setWords] = useState(asked);
  const [before, setBefore] = useState(asked);
  // What is looked for on the page of Find stands here as well.
  if (asked !== before) {
    setBefore(asked);
    setWords(asked);
  }
  return (
    <form
      role="search"
      className={FIND}
      onSubmit={(e) => {
        e.preventDefault();
        if (words.trim()) void navigate(`/find?q=${encodeURIComponent(words.trim())}`);
      }}
    >
      <input
        id={FIND_FIELD}
        type="search"
        aria-label="Find a passage, note or tag"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        placeholder="Find a passage, note, #tag"
        className="min-w-0 flex-1 bg-transparent outline-none placeholder:text-faint"
      />
      <kbd aria-hidden="true" className="border border-strong px-[5px] text-[12px] text-faint max-[900px]:hidden">
        /
      </kbd>
    </form>
  );
}

function MyMenu() {
  const me = useMe();
  const theme = useTheme();
  const client = useQueryClient();
  const navigate = useNavigate();
  const signOut = async (): Promise<void> => {
    await call('DELETE /api/session').catch(() => undefined);
    sessionStorage.clear();
    void navigate('/enter');
    client.clear();
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="whitespace-nowrap font-semibold"
        title={`${me.name}: theme, your account, signing out`}
      >
        <span className="max-[380px]:sr-only">{shortName(me.name)}</span>
        <span aria-hidden="true" className="hidden max-[380px]:inline">
          {initials(me.name)}
        </span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={10} className="over min-w-[210px] py-1.5 text-[14px]">
          <DropdownMenu.Label className="px-3.5 pb-1.5 text-[13px] text-soft">{me.email}</DropdownMenu.Label>
          <DropdownMenu.Item className="item" onSelect={() => setTheme(theme === 'day' ? 'night' : 'day')}>
            {theme === 'day' ? 'Night theme' : 'Day theme'}
          </DropdownMenu.Item>
          <DropdownMenu.Item className="item" onSelect={() => void navigate('/account')}>
            Your account
          </DropdownMenu.Item>
          <DropdownMenu.Item className="item" onSelect={() => void navigate('/notifications')}>
            Notifications
          </DropdownMenu.Item>
          <DropdownMenu.Item className="item" onSelect={() => void signOut()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const initials = (name: string): string =>
  name
    .split(' ')
    .map((part) => part[0])
    .join('')
    .slice(0, 2);
