import { Link } from 'react-router';
import { useDocument } from '../../document/document-context';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { Contents } from './Contents';
import { TypeMenu } from './TypeMenu';

/** The ways about within a source, and how it is read; `onDone` where they stand in a menu that then closes. */
export function SourceNavigation({ onDone }: { readonly onDone?: () => void }) {
  const { source, text, store } = useSession();
  const { goToRange, type, setType } = useDocument();
  const { aloud } = useTools();
  const finding = useReader((s) => s.finding);
  const listening = useReader((s) => s.listening);
  const view = useReader((s) => s.view);
  const isPicture = source.kind === 'image';
  const spoken = !isPicture && source.kind !== 'audio' && source.kind !== 'video';
  const done = (act: () => void) => (): void => {
    act();
    onDone?.();
  };
  return (
    <>
      <Contents text={text.text} outline={text.outline} onGo={(block) => done(() => goToRange(block))()} />
      {!isPicture && (
        <button
          className="hover:text-ink"
          aria-pressed={finding}
          title="Find words in this source (f)"
          onClick={done(() => store.dispatch({ type: 'find', on: !finding }))}
        >
          Find in text
        </button>
      )}
      {spoken && (
        <button
          className="hover:text-ink"
          aria-pressed={listening}
          title="Have it read aloud from here (l)"
          onClick={done(() => aloud.listen(!listening))}
        >
          Listen
        </button>
      )}
      {isPicture && source.owned && source.versionNumber === source.newest && (
        <Link
          className="hover:text-ink"
          title="Cut the picture, or hide parts of it for good"
          to={`/source/${source.id}/picture`}
        >
          Crop, black out
        </Link>
      )}
      <TypeMenu kind={source.kind} type={type} flows={view === 'main'} onType={setType} />
      <button
        className="hover:text-ink"
        title="Only the page (z); Esc brings the rest back"
        onClick={done(() => store.dispatch({ type: 'focus mode', on: true }))}
      >
        Focus
      </button>
    </>
  );
}
