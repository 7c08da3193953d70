import { Link } from 'react-router';
import type { Annotation, SourceDetail, PersonId } from '@avrelle/core/wire';
import { count, day } from '../../../ui/when';
import { Facts } from './Facts';
import { Strip } from './Strip';
import { UnplacedList } from './UnplacedList';
import type { OpenPage } from '../../document/use-page';
import { useSelecting } from '../../document/use-selection';

interface Props {
  readonly source: SourceDetail;
  readonly text: string;
  readonly me: PersonId;
  readonly unplaced: readonly Annotation[];
  readonly placing: Annotation | undefined;
  readonly page: OpenPage | undefined;
  onPutHere(): void;
  onCancel(): void;
  onChoose(annotation: Annotation): void;
  onAccept(annotation: Annotation, range: { start: number; end: number }): void;
  onShow(range: { start: number; end: number }): void;
}

/** Between running head and page: what a reader must know of this version, and what waits to be done. Empty as a rule. */
export function Notices({ source, text, me, unplaced, placing, page, ...act }: Props) {
  const selecting = useSelecting(page);
  const older = source.versionNumber < source.newest;
  if (placing) {
    return (
      <Strip>
        <span className="min-w-0 flex-1">
          Select where <q className="font-read italic">{clip(placing.anchor?.quote.exact ?? '')}</q> belongs in this
          version.
        </span>
        <button className="press" disabled={!selecting} onMouseDown={(e) => e.preventDefault()} onClick={act.onPutHere}>
          Put it here
        </button>
        <button className="act" onClick={act.onCancel}>
          Leave it
        </button>
      </Strip>
    );
  }
  return (
    <>
      <Facts source={source} />
      {older && (
        <Strip>
          <span className="flex-1">
            You are reading version {source.versionNumber}, kept on {day(source.versionKeptAt)}. Version {source.newest}{' '}
            is the newest; highlights and notes are made there.
          </span>
          <Link className="act" to={`/source/${source.id}/changes?from=${source.versionNumber}&to=${source.newest}`}>
            What changed
          </Link>
          <Link className="act" to={`/source/${source.id}?version=${source.newest}`}>
            Go to the newest
          </Link>
        </Strip>
      )}
      {unplaced.length > 0 && (
        <details className="border-b border-rule bg-paper text-[14px]">
          <summary className="cursor-pointer border-l-[3px] border-brick px-6 py-1.5 text-brick max-[900px]:px-3">
            {count(unplaced.length, 'annotation is', 'annotations are')} unplaced: the passage was not found in this
            version. Nothing of it is lost.
          </summary>
          <div className="max-h-[42vh] overflow-y-auto px-6 pb-4 max-[900px]:px-3">
            <UnplacedList annotations={unplaced} text={text} me={me} readOnly={older} {...act} />
          </div>
        </details>
      )}
    </>
  );
}

const clip = (words: string): string => (words.length > 110 ? `${words.slice(0, 108)}…` : words);
