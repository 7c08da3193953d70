import { notifyManager, QueryClient } from '@tanstack/react-query';
import { isOffline } from './api';

// What was changed is shown in the same frame.
notifyManager.setScheduler(queueMicrotask);

export const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      refetchOnWindowFocus: false,
      networkMode: 'always',
      // What the server refuses is not asked again.
      retry: (count, error) => isOffline(error) && count < 5,
      retryDelay: (count) => Math.min(8000, 500 * 2 ** count),
    },
    mutations: { networkMode: 'always' },
  },
});
