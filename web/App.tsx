import { lazy, Suspense, type ReactNode } from 'react';
import { Navigate, Route, Routes, useLocation, useParams } from 'react-router';
import { MeContext } from './account/me';
import { useAnnotations, useClasses, useSource, useWelcome } from './data/queries';
import { useLive } from './data/use-live';
import { Places } from './Places';
import { State } from './ui/State';

const LibraryPage = lazy(() => import('./library/LibraryPage'));
const ReaderPage = lazy(() => import('./reader/ReaderPage'));
const ChangesPage = lazy(() => import('./changes/ChangesPage'));
const GatherPage = lazy(() => import('./gather/GatherPage'));
const LookPage = lazy(() => import('./gather/LookPage'));
const PicturePage = lazy(() => import('./picture/PicturePage'));
const LeadPage = lazy(() => import('./note/LeadPage'));
const CollectionPage = lazy(() => import('./library/CollectionPage'));
const DeletedPage = lazy(() => import('./library/DeletedPage'));
const WorkThroughPage = lazy(() => import('./library/WorkThroughPage'));
const TopicPage = lazy(() => import('./library/TopicPage'));
const FindPage = lazy(() => import('./find/FindPage'));
const DeskPage = lazy(() => import('./desk/DeskPage'));
const ClassesPage = lazy(() => import('./classes/ClassesPage'));
const ClassPage = lazy(() => import('./classes/ClassPage'));
const AccountPage = lazy(() => import('./account/AccountPage'));

export function App() {
  const welcome = useWelcome();
  const me = welcome.data?.me ?? null;
  const connected = useLive(me?.id, welcome.data?.event ?? 0);
  const here = useLocation();
  if (!welcome.data) return <main><State of={welcome} /></main>;
  const waiting = <p role="status" className="p-8 text-faint">One moment…</p>;
  if (!me) {
    const back = here.pathname === '/enter' ? '/' : here.pathname + here.search;
    return <Suspense fallback={waiting}><AccountPage welcome={welcome.data} back={back} /></Suspense>;
  }
  return (
    <MeContext.Provider value={me}>
      <div className="grid h-full grid-rows-[auto_1fr] [[data-focus]_&]:grid-rows-[1fr]">
        <Places connected={connected} />
        <Suspense fallback={waiting}>
          <Routes>
            <Route path="/" element={<Navigate to="/desk" replace />} />
            <Route path="/desk" element={<DeskPage />} />
            <Route path="/library" element={<LibraryPage />} />
            <Route path="/library/deleted" element={<DeletedPage />} />
            <Route path="/collection/:id" element={<CollectionPage />} />
            <Route path="/topic" element={<TopicPage />} />
            <Route path="/work-through" element={<WorkThroughPage />} />
            <Route path="/gather" element={<GatherPage />} />
            <Route path="/look/:id" element={<LookPage />} />
            <Route path="/source/:id" element={<SourceRoute waiting={waiting} />} />
            <Route path="/source/:id/changes" element={<ChangesPage />} />
            <Route path="/source/:id/picture" element={<PicturePage />} />
            <Route path="/to/:type/:id" element={<LeadPage />} />
            <Route path="/find" element={<FindPage />} />
            <Route path="/classes" element={<ClassesPage />} />
            <Route path="/classes/:id" element={<ClassPage />} />
            <Route path="*" element={<main className="p-8"><h1 className="text-[23px]">Nothing here</h1><p className="mt-2 text-soft">There is no such page. Choose a place above.</p></main>} />
          </Routes>
        </Suspense>
      </div>
    </MeContext.Provider>
  );
}

/** Asks for a source's data while the code of the reading view is still on its way. */
function SourceRoute({ waiting }: { waiting: ReactNode }) {
  const { id = '' } = useParams();
  useSource(id);
  useAnnotations(id);
  useClasses();
  return <Suspense fallback={waiting}><ReaderPage /></Suspense>;
}
