import { Link } from 'react-router';
import { count, day } from '../../../ui/when';
import { useDocument } from '../../document/document-context';
import { useSelecting } from '../../document/use-selection';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { Facts } from './Facts';
import { FindWithin } from './FindWithin';
import { HeldHere } from './HeldHere';
import { ListenBar } from './ListenBar';
import { SetHere } from './SetHere';
import { Strip } from './Strip';
import { UnplacedList } from './UnplacedList';

/** Between toolbar and page: what is under way, what a reader must know of this version, and what waits to be done. Empty as a rule. */
export function Notices() {
  const { source } = useSession();
  const { placing } = useTools().placing;
  const listening = useReader((s) => s.listening);
  const finding = useReader((s) => s.finding);
  return (
    <div>
      {listening && <ListenBar />}
      {finding && <FindWithin />}
      {placing ? (
        <PlacingStrip words={placing.anchor?.quote.exact ?? ''} />
      ) : (
        <>
          <SetHere />
          <HeldHere />
          <Facts source={source} />
          {source.versionNumber < source.newest && <OlderVersion />}
          <Unplaced />
        </>
      )}
    </div>
  );
}

/** While an author shows where an annotation belongs. */
function PlacingStrip({ words }: { readonly words: string }) {
  const { placing } = useTools();
  const selecting = useSelecting(useDocument().page);
  return (
    <Strip>
      <span className="min-w-0 flex-1">
        Select where <q className="font-read italic">{clip(words)}</q> belongs in this version.
      </span>
      <button className="press" disabled={!selecting} onMouseDown={(e) => e.preventDefault()} onClick={placing.putHere}>
        Put it here
      </button>
      <button className="act" onClick={placing.leave}>
        Leave it
      </button>
    </Strip>
  );
}

function OlderVersion() {
  const { id, versionNumber, versionKeptAt, newest } = useSession().source;
  return (
    <Strip>
      <span className="flex-1">
        You are reading version {versionNumber}, kept on {day(versionKeptAt)}. Version {newest} is the newest;
        highlights and notes are made there.
      </span>
      <Link className="act" to={`/source/${id}/changes?from=${versionNumber}&to=${newest}`}>
        What changed
      </Link>
      <Link className="act" to={`/source/${id}?version=${newest}`}>
        Go to the newest
      </Link>
    </Strip>
  );
}

/** How far below the top of the window a candidate is shown, in pixels. */
const BELOW = 120;

function Unplaced() {
  const { source, text, me, unplaced } = useSession();
  const { page, goToRange } = useDocument();
  const { placing } = useTools();
  if (unplaced.length === 0) return null;
  return (
    <details className="border-b border-rule bg-paper text-[14px]">
      <summary className="cursor-pointer border-l-[3px] border-brick px-6 py-1.5 text-brick max-[900px]:px-3">
        {count(unplaced.length, 'annotation is', 'annotations are')} unplaced: the passage was not found in this
        version. Nothing of it is lost.
      </summary>
      <div className="max-h-[42vh] overflow-y-auto px-6 pb-4 max-[900px]:px-3">
        <UnplacedList
          annotations={unplaced}
          text={text.text}
          me={me.id}
          readOnly={source.versionNumber < source.newest}
          onChoose={placing.begin}
          onAccept={placing.accept}
          onShow={(range) => {
            page?.painter.found(range);
            goToRange(range, BELOW);
          }}
        />
      </div>
    </details>
  );
}

const clip = (words: string): string => (words.length > 110 ? `${words.slice(0, 108)}…` : words);
