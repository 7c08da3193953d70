import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { SourceDetail } from '@avrelle/core/wire';
import type { View } from './page-style';
import { TakeOut } from './TakeOut';
import { VersionMenu } from './VersionMenu';

interface Props {
  readonly source: SourceDetail;
  readonly view: View;
  onView(view: View): void;
  readonly back: { readonly to: string; readonly words: string };
  readonly audience: ReactNode;
}

/** Above the page: whence I came, what I read, which version, and who can see what I write now. */
export function RunningHead({ source, view, onView, back, audience }: Props) {
  return (
    <header className="grid grid-cols-[1fr_auto_1fr] items-center gap-4 border-b border-rule px-6 py-[5px] text-[14px] text-soft max-[900px]:grid-cols-[auto_1fr] max-[900px]:px-3">
      <Link to={back.to} className="truncate hover:text-ink">‹ {back.words}</Link>
      <h1 className="max-w-[44vw] truncate text-center !font-normal font-read text-[15px] italic text-ink max-[900px]:hidden" title={source.title}>{source.title}</h1>
      <div className="flex items-center justify-end gap-4">
        <TakeOut sourceId={source.id} />
        {source.kind === 'page' && <button className="hover:text-ink max-[1100px]:hidden" aria-pressed={view === 'kept'} onClick={() => onView(view === 'main' ? 'kept' : 'main')} title={view === 'main' ? 'Show the whole page as it was kept' : 'Show the main text alone'}>{view === 'main' ? 'Whole page' : 'Main text'}</button>}
        <span className="whitespace-nowrap max-[900px]:flex max-[900px]:gap-3"><VersionMenu source={source} /><span className="max-[900px]:hidden"> · </span><span className="max-[900px]:hidden">writing for </span>{audience}</span>
      </div>
    </header>
  );
}
