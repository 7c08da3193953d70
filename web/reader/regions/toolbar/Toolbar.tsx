import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { SourceDetail, SourceKind } from '@avrelle/core/wire';
import { ZOOMS } from '../../document/pdf/use-pages';
import type { View } from '../../document/page-style';
import { ShelfMenu } from './ShelfMenu';
import { ExportMenu } from './ExportMenu';
import { VersionMenu } from './VersionMenu';

interface Props {
  readonly source: SourceDetail;
  readonly view: View;
  onView(view: View): void;
  readonly back: { readonly to: string; readonly words: string };
  readonly audience: ReactNode;
  /** SourceNavigation about within the source. */
  readonly within: ReactNode;
  /** For a picture: gives it with its marks. */
  onPicture?(): void;
  /** For pages that can be made larger. */
  readonly zoom?: number;
  onZoom?(zoom: number): void;
}

/** What the two views of each kind are called; a kind without a name for the second has but one. */
const VIEWS: Partial<Record<SourceKind, Readonly<Record<View, string>>>> = {
  page: { main: 'Main text', kept: 'Whole page' },
  letter: { main: 'Main text', kept: 'Whole letter' },
  pdf: { main: 'Text', kept: 'Pages' },
};

/** Above the page: whence I came, what I read, which version, and who can see what I write now. */
export function Toolbar({ source, view, onView, back, audience, within, onPicture, zoom, onZoom }: Props) {
  const views = VIEWS[source.kind];
  const other = view === 'main' ? 'kept' : 'main';
  return (
    <header className="steps-back grid grid-cols-[1fr_auto_1fr] items-center gap-4 border-b border-rule px-6 py-[5px] text-[14px] text-soft max-[900px]:grid-cols-[auto_1fr] max-[900px]:px-3">
      <div className="flex min-w-0 items-center gap-4">
        <Link to={back.to} className="truncate hover:text-ink" title={back.words}>
          ‹ <span className="max-[600px]:sr-only">{back.words}</span>
        </Link>
        <span className="flex gap-4 whitespace-nowrap max-[900px]:hidden">{within}</span>
      </div>
      <h1
        dir="auto"
        className="max-w-[44vw] truncate text-center !font-normal font-read text-[15px] italic text-ink max-[900px]:hidden"
        title={source.title}
      >
        {source.title}
      </h1>
      <div className="flex items-center justify-end gap-4">
        {onPicture && (
          <button
            className="press !py-1 max-[900px]:!px-2.5"
            aria-label="Download PNG"
            title="Download the picture with everything that is marked on it"
            onClick={onPicture}
          >
            <span className="max-[900px]:hidden">Download </span>PNG
          </button>
        )}
        <ShelfMenu source={source} back={back.to} />
        <ExportMenu sourceId={source.id} />
        {zoom !== undefined && onZoom && <Zoom zoom={zoom} onZoom={onZoom} />}
        {views && (
          <button
            className={`hover:text-ink ${source.kind === 'pdf' ? '' : 'max-[1100px]:hidden'}`}
            onClick={() => onView(other)}
            title={other === 'kept' ? 'Show it as it was kept' : 'Show the text alone, in our type'}
          >
            {views[other]}
          </button>
        )}
        <span className="whitespace-nowrap max-[900px]:flex max-[900px]:gap-3">
          <VersionMenu source={source} />
          <span className="max-[900px]:hidden"> · </span>
          <span className="max-[900px]:hidden">writing for </span>
          {audience}
        </span>
      </div>
    </header>
  );
}

function Zoom({ zoom, onZoom }: { zoom: number; onZoom: (zoom: number) => void }) {
  const smaller = ZOOMS.findLast((z) => z < zoom);
  const larger = ZOOMS.find((z) => z > zoom);
  const button = (words: string, sign: string, to: number | undefined) => (
    <button
      className="px-1 hover:text-ink disabled:opacity-40"
      aria-label={words}
      title={words}
      disabled={to === undefined}
      onClick={() => to !== undefined && onZoom(to)}
    >
      {sign}
    </button>
  );
  return (
    <span role="group" aria-label="Size of the pages" className="whitespace-nowrap max-[900px]:hidden">
      {button('Smaller pages', '−', smaller)}
      <button className="w-[44px] tabular-nums hover:text-ink" title="Fill the width" onClick={() => onZoom(1)}>
        {Math.round(zoom * 100)} %
      </button>
      {button('Larger pages', '+', larger)}
    </span>
  );
}
