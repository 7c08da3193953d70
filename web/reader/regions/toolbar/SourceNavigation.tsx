import { Link } from 'react-router';
import type { Block } from '@avrelle/core/text';
import type { SourceDetail, SourceText } from '@avrelle/core/wire';
import { TypeMenu } from './TypeMenu';
import type { Type } from '../../document/type';
import { Contents } from './Contents';
import type { View } from '../../document/page-style';

interface Props {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly view: View;
  readonly type: Type;
  readonly finding: boolean;
  /** Undefined where there is nothing to read aloud. */
  readonly listens: boolean | undefined;
  onGo(block: Block): void;
  onFind(on: boolean): void;
  onListen(on: boolean): void;
  onType(type: Type): void;
  onFocus(): void;
}

/** The ways about within a source, and how it is read. */
export function SourceNavigation({
  source,
  text,
  view,
  type,
  finding,
  listens,
  onGo,
  onFind,
  onListen,
  onType,
  onFocus,
}: Props) {
  return (
    <>
      <Contents text={text.text} outline={text.outline} onGo={onGo} />
      {source.kind !== 'image' && (
        <button
          className="hover:text-ink"
          aria-pressed={finding}
          title="Find words in this source (f)"
          onClick={() => onFind(!finding)}
        >
          Find in it
        </button>
      )}
      {listens !== undefined && (
        <button
          className="hover:text-ink"
          aria-pressed={listens}
          title="Have it read aloud from here (l)"
          onClick={() => onListen(!listens)}
        >
          Listen
        </button>
      )}
      {source.kind === 'image' && source.owned && source.versionNumber === source.newest && (
        <Link
          className="hover:text-ink"
          title="Cut the picture, or hide parts of it for good"
          to={`/source/${source.id}/picture`}
        >
          Crop, black out
        </Link>
      )}
      <TypeMenu kind={source.kind} type={type} flows={view === 'main'} onType={onType} />
      <button className="hover:text-ink" title="Nothing but the page (z); Esc brings the rest back" onClick={onFocus}>
        Focus
      </button>
    </>
  );
}
