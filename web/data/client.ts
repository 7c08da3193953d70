import { notifyManager, QueryClient } from '@tanstack/react-query';
import { isOffline } from './api';

// What was changed is shown in the same frame.
notifyManager.setScheduler(queueMicrotask);

/** Asked again only where there was no connection. */
export const retryOffline = (count: number, error: unknown): boolean => isOffline(error) && count < 5;

export const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      refetchOnWindowFocus: false,
      networkMode: 'always',
      retry: retryOffline,
      retryDelay: (count) => Math.min(8000, 500 * 2 ** count),
    },
    mutations: { networkMode: 'always' },
  },
});
