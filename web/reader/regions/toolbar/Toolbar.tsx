import { Link, useLocation } from 'react-router';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { useWidth } from '../../../ui/use-width';
import { AudienceMenu } from './AudienceMenu';
import { ExportMenu } from './ExportMenu';
import { ReadingMenu } from './ReadingMenu';
import { ShelfMenu } from './ShelfMenu';
import { SourceNavigation } from './SourceNavigation';
import { VersionMenu } from './VersionMenu';
import { ViewSwitch, Zoom } from './ViewSwitch';
import { PageHeading } from '../../../ui/PageHeading';

/** From this width on, in pixels, there is room for every way about the source side by side. */
const ROOMY = 1_100;

interface Back {
  readonly to: string;
  readonly words: string;
}
const LIBRARY: Back = { to: '/library', words: 'Library' };

/** Above the page: whence I came, what I read, which version, and who can see what I write now. */
export function Toolbar() {
  const { source, audience, chooseAudience } = useSession();
  const { downloadPicture } = useTools().pictures;
  const roomy = useWidth(ROOMY);
  const from = useLocation().state as { back?: Back } | null;
  const back = from?.back ?? LIBRARY;
  return (
    <header className="steps-back grid grid-cols-[1fr_auto_1fr] min-[1100px]:grid-cols-[minmax(max-content,1fr)_minmax(0,auto)_minmax(max-content,1fr)] items-center gap-4 border-b border-rule px-6 py-[5px] text-[14px] text-soft max-[900px]:grid-cols-[auto_1fr] max-[900px]:px-3">
      <div className="flex min-w-0 items-center gap-4">
        <Link to={back.to} className="truncate hover:text-ink pointer-coarse:min-w-[44px]" title={back.words}>
          ‹ <span className="max-[600px]:sr-only">{back.words}</span>
        </Link>
        {roomy ? (
          <span className="flex gap-4 whitespace-nowrap">
            <SourceNavigation />
          </span>
        ) : (
          <ReadingMenu />
        )}
      </div>
      <PageHeading
        dir="auto"
        className="max-w-[44vw] truncate text-center !font-normal font-read text-[15px] italic text-ink max-[900px]:sr-only"
        title={source.title}
      >
        {source.title}
      </PageHeading>
      <div className="flex items-center justify-end gap-x-4 max-[900px]:gap-x-3 max-[600px]:min-w-0 max-[600px]:flex-wrap">
        {downloadPicture && <DownloadPicture onDownload={downloadPicture} />}
        <ShelfMenu source={source} back={back.to} />
        <ExportMenu sourceId={source.id} />
        {roomy && (
          <>
            <Zoom />
            <ViewSwitch />
          </>
        )}
        <span className="min-w-0 whitespace-nowrap max-[900px]:flex max-[900px]:gap-3">
          <VersionMenu source={source} />
          <span className="max-[900px]:hidden"> · </span>
          <span className="max-[900px]:hidden">writing for </span>
          <AudienceMenu label="Writing for" audience={audience} onChoose={(one) => void chooseAudience(one)} />
        </span>
      </div>
    </header>
  );
}

function DownloadPicture({ onDownload }: { readonly onDownload: () => void }) {
  return (
    <button
      className="press !py-1 max-[900px]:!px-2.5"
      aria-label="Download PNG"
      title="Download the picture with everything that is marked on it"
      onClick={onDownload}
    >
      <span className="max-[900px]:hidden">Download </span>PNG
    </button>
  );
}
