import { asksWords, parseQuery } from '@avrelle/core/query';
import { SOURCE_SORTS, type FoundSource, type SavedSearch } from '@avrelle/core/wire';
import { useAddressParams } from '../ui/use-address-params';
import { useStored } from '../ui/use-stored';
import type { Chosen } from './use-chosen';
import type { SourceList } from './use-source-list';

export const VIEWS = ['detailed', 'compact', 'table', 'board', 'calendar'] as const;
export type View = (typeof VIEWS)[number];
export const VIEW_WORDS: Readonly<Record<View, string>> = {
  detailed: 'Detailed',
  compact: 'Compact',
  table: 'Table',
  board: 'Board',
  calendar: 'Calendar',
};
/** What is being asked in a dialog. */
export type Asking =
  | { readonly edit: FoundSource }
  | { readonly search: SavedSearch | undefined }
  | { readonly tag: string }
  | { readonly collection: true };

/** What is asked and how it is shown, as it stands in the address. */
export function useAsked() {
  const [params, to] = useAddressParams();
  const [usual, setUsual] = useStored<View>('library.view', 'detailed');
  const q = params.get('q') ?? '';
  const parsed = parseQuery(q);
  const query = parsed.ok ? parsed.query : undefined;
  return {
    q,
    to,
    view: VIEWS.find((v) => v === params.get('view')) ?? usual,
    setView: (view: View): void => {
      setUsual(view);
      to({ view });
    },
    sort: SOURCE_SORTS.find((s) => s === params.get('sort')),
    hasWords: asksWords(query).length > 0,
    /** Where nothing but a tag is asked for. */
    tag: query?.type === 'name' && query.field === 'tag' ? query.value : undefined,
  };
}

export type Asked = ReturnType<typeof useAsked>;

/** What the parts of the Library share. */
export interface PartProps {
  readonly address: Asked;
  /** The last search that could be read. */
  readonly asked: string;
  readonly list: SourceList;
  readonly chosen: Chosen;
  onQuery(q: string): void;
  onAsk(asking: Asking): void;
}
