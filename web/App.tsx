import { lazy, Suspense, useEffect } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { MeContext } from './account/me';
import { useTints, useWelcome } from './data/queries';
import { defer } from './data/deferred';
import { useLive } from './data/use-live';
import { useOutbox } from './data/use-outbox';
import { fetchPage, PAGES } from './pages';
import { Navigation } from './Navigation';
import { lazily } from './ui/lazily';
import { Boundary } from './ui/Boundary';
import { State } from './ui/State';
import { TintContext } from './ui/TagNames';
import { PAGE_HEADING, PageHeading } from './ui/PageHeading';
import { SkipLink } from './ui/SkipLink';

const NO_TINTS = {};
const AccountPage = lazy(() => import('./account/AccountPage'));
const StopMailsPage = lazy(() => import('./notifications/StopMailsPage'));

const Commands = lazy(() => import('./commands/Commands'));
/** Whatever becomes of it, the page stands. */
const LiveBar = lazily(() => import('./live/LiveBar').catch(() => ({ default: () => null })));

/** The frame of every page: the places above, or the door where nobody is signed in. */
export function App() {
  const welcome = useWelcome();
  const me = welcome.data?.me ?? null;
  const connected = useLive(me?.id, welcome.data?.event ?? '');
  const here = useLocation();
  const tints = useTints(me !== null).data;
  const waits = useOutbox(me?.id);
  // Reading comes next as a rule.
  useEffect(() => {
    if (me) defer(() => void fetchPage('/source/next'));
  }, [me]);
  if (!welcome.data)
    return (
      <main>
        <State of={welcome} />
      </main>
    );
  const waiting = (
    <p role="status" className="p-8 text-faint">
      Loading…
    </p>
  );
  if (here.pathname.startsWith('/stop-mails/'))
    return (
      <Suspense fallback={waiting}>
        <Routes>
          <Route path="/stop-mails/:hash" element={<StopMailsPage />} />
        </Routes>
      </Suspense>
    );
  if (!me) {
    const back = here.pathname === '/enter' ? '/' : here.pathname + here.search;
    return (
      <Suspense fallback={waiting}>
        <AccountPage welcome={welcome.data} back={back} />
      </Suspense>
    );
  }
  return (
    <MeContext.Provider value={me}>
      <Suspense>
        <Commands />
      </Suspense>
      <TintContext.Provider value={tints ?? NO_TINTS}>
        <div className="grid h-full grid-rows-[auto_1fr] [[data-focus]_&]:grid-rows-[1fr]">
          <SkipLink to={PAGE_HEADING}>Skip to the page</SkipLink>
          <div className="steps-back">
            <Navigation connected={connected} waits={waits} />
            <Suspense>
              <LiveBar />
            </Suspense>
          </div>
          <Boundary at={here.pathname}>
            <Suspense fallback={waiting}>
              <Routes>
                <Route path="/" element={<Navigate to="/desk" replace />} />
                {PAGES.map(({ path, Page }) => (
                  <Route key={path} path={path} element={<Page />} />
                ))}
                <Route
                  path="*"
                  element={
                    <main className="p-8">
                      <PageHeading>Nothing here</PageHeading>
                      <p className="mt-2 text-soft">There is no such page. Choose a place above.</p>
                    </main>
                  }
                />
              </Routes>
            </Suspense>
          </Boundary>
        </div>
      </TintContext.Provider>
    </MeContext.Provider>
  );
}
