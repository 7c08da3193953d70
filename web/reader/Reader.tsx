import { DocumentProvider } from './document/DocumentProvider';
import { Dialogs } from './regions/dialogs/Dialogs';
import { Foot } from './regions/legend/Foot';
import { Minimap } from './regions/minimap/Minimap';
import { Notices } from './regions/notices/Notices';
import { PageRegion } from './regions/page/PageRegion';
import { Recording } from './regions/recording/Recording';
import { SkipLink } from '../ui/SkipLink';
import { READER_NOTES, READER_TEXT } from './landmarks';
import { Toolbar } from './regions/toolbar/Toolbar';
import { SessionProvider, type Opened } from './session/SessionProvider';
import { ToolsProvider } from './session/ToolsProvider';

/** The reading view of one version of a source. Each region reads the model itself. */
export function Reader({ opened }: { readonly opened: Opened }) {
  return (
    <SessionProvider opened={opened}>
      <DocumentProvider>
        <ToolsProvider>
          <main className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_auto_1fr_auto]">
            <SkipLink to={READER_TEXT}>Skip to the text</SkipLink>
            <SkipLink to={READER_NOTES}>Skip to the notes</SkipLink>
            <Toolbar />
            <Notices />
            <div className="grid min-h-0 grid-rows-[minmax(0,1fr)] grid-cols-[96px_1fr] max-[900px]:grid-cols-1 [[data-focus]_&]:grid-cols-1">
              <Minimap />
              <div className="grid min-h-0 min-w-0 grid-rows-[auto_minmax(0,1fr)]">
                <Recording />
                <PageRegion />
              </div>
            </div>
            <Foot />
            <Dialogs />
          </main>
        </ToolsProvider>
      </DocumentProvider>
    </SessionProvider>
  );
}
