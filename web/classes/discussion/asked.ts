import { THREAD_FILTERS, THREAD_SORTS, type ThreadFilter, type ThreadSort } from '@avrelle/core/wire';
import { useAddressParams } from '../../ui/use-address-params';

/** What is shown of a discussion, as it stands in the address. */
export function useAskedThreads() {
  const [params, to] = useAddressParams();
  const q = params.get('q') ?? '';
  const source = params.get('source') ?? undefined;
  const sort: ThreadSort = THREAD_SORTS.find((s) => s === params.get('sort')) ?? 'answered';
  const only: ThreadFilter | undefined = THREAD_FILTERS.find((f) => f === params.get('only'));
  /** The thread that is open. */
  const at = params.get('at') ?? undefined;
  const addressOf = (id: string): string => {
    const open = new URLSearchParams(params);
    open.set('at', id);
    return `?${open}`;
  };
  return { q, source, sort, only, at, to, addressOf };
}
export type AskedThreads = ReturnType<typeof useAskedThreads>;

export const SORT_WORDS: Readonly<Record<ThreadSort, string>> = {
  answered: 'newest answer',
  newest: 'time written',
  place: 'place in the text',
  answers: 'number of answers',
  author: 'author',
};
export const FILTER_WORDS: Readonly<Record<ThreadFilter, string>> = {
  unread: 'unread',
  unanswered: 'without answers',
  starred: 'with my star',
  endorsed: 'recommended',
  hidden: 'hidden',
  reported: 'reported',
};
