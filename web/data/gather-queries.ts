import { useQuery } from '@tanstack/react-query';
import { call } from './call';
import { keys } from './keys';

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => call('GET /api/jobs') });
export const useArrivals = () => useQuery({ queryKey: keys.arrivals, queryFn: () => call('GET /api/arrivals') });
export const useLists = () => useQuery({ queryKey: keys.lists, queryFn: () => call('GET /api/lists') });
export const useFeeds = () => useQuery({ queryKey: keys.feeds, queryFn: () => call('GET /api/feeds') });
export const useIntake = () => useQuery({ queryKey: keys.intake, queryFn: () => call('GET /api/intake') });
export const useDraft = (id: string) =>
  useQuery({
    queryKey: keys.draft(id),
    queryFn: () => call('GET /api/drafts/:id', { params: { id } }),
    retry: false,
  });
