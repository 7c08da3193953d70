import { lazy, Suspense } from 'react';
import { useCommandList } from './registry';
import { useApplicationCommands } from './use-application-commands';

const CommandList = lazy(() => import('./CommandList'));

/** The keys that mean something everywhere, and the list of all that can be done. */
export default function Commands() {
  const open = useCommandList((s) => s.open);
  useApplicationCommands();
  return (
    open && (
      <Suspense>
        <CommandList />
      </Suspense>
    )
  );
}
