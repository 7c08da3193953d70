import type { SourceKind } from '@avrelle/core/wire';
import { useDocument } from '../../document/document-context';
import { ZOOMS } from '../../document/pdf/use-pages';
import type { View } from '../../model/reader-state';
import { useReader, useSession } from '../../session/reader-context';

/** What the two views of each kind are called; a kind without a name for the second has but one. */
const VIEWS: Partial<Record<SourceKind, Readonly<Record<View, string>>>> = {
  page: { main: 'Main text', kept: 'Whole page' },
  letter: { main: 'Main text', kept: 'Whole letter' },
  pdf: { main: 'Text', kept: 'Pages' },
};

/** To the other view of the document: the text alone, or as it was kept. */
export function ViewSwitch() {
  const { source, store } = useSession();
  const view = useReader((s) => s.view);
  const views = VIEWS[source.kind];
  if (!views) return null;
  const other = view === 'main' ? 'kept' : 'main';
  return (
    <button
      className="whitespace-nowrap hover:text-ink"
      onClick={() => store.dispatch({ type: 'view', view: other })}
      title={other === 'kept' ? 'Show it as it was kept' : 'Show the text alone, in our type'}
    >
      {views[other]}
    </button>
  );
}

/** How large the pages of a PDF are shown. */
export function Zoom() {
  const { asPictures, zoom, setZoom } = useDocument();
  if (!asPictures) return null;
  const smaller = ZOOMS.findLast((z) => z < zoom);
  const larger = ZOOMS.find((z) => z > zoom);
  const button = (words: string, sign: string, to: number | undefined) => (
    <button
      className="px-1 hover:text-ink disabled:opacity-40"
      aria-label={words}
      title={words}
      disabled={to === undefined}
      onClick={() => to !== undefined && setZoom(to)}
    >
      {sign}
    </button>
  );
  return (
    <span role="group" aria-label="Size of the pages" className="whitespace-nowrap">
      {button('Smaller pages', '−', smaller)}
      <button className="w-[44px] tabular-nums hover:text-ink" title="Fill the width" onClick={() => setZoom(1)}>
        {Math.round(zoom * 100)} %
      </button>
      {button('Larger pages', '+', larger)}
    </span>
  );
}
