import type { Kind } from '@avrelle/core/legend';
import { Marked, Sign } from '../../../ui/Sign';
import { useDocument } from '../../document/document-context';
import { useSelecting } from '../../document/use-selection';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { openCommands } from '../../../commands/registry';
import { ProgressMenu } from './ProgressMenu';
import { ShowMenu } from './ShowMenu';

/** The Legend itself; with words selected a kind marks them. Beside it the tools, whose marks are shown and how much is left. */
export function Legend() {
  const selecting = useSelecting(useDocument().page);
  const areas = useReader((s) => s.tool === 'area');
  return (
    <footer className="steps-back flex h-[50px] items-center gap-4 overflow-x-auto whitespace-nowrap border-t border-strong px-6 text-[14px] max-[1350px]:gap-2.5 max-[900px]:px-3">
      <Kinds selecting={selecting} />
      <Tools selecting={selecting} />
      <span aria-live="polite" className="sr-only">
        {areas && 'Drag over an area; click for a point'}
        {!areas && selecting && 'Press a digit to mark, or type to write a note'}
      </span>
      <div className="ml-auto flex items-center gap-5 max-[1350px]:gap-3">
        <ShowMenu />
        <ProgressMenu />
        <button
          onClick={openCommands}
          aria-label="Keys"
          title="All commands and their keys (?)"
          className="border border-strong px-1.5 text-[12px] text-soft"
        >
          ?
        </button>
      </div>
    </footer>
  );
}

function Kinds({ selecting }: { readonly selecting: boolean }) {
  const { legend } = useSession();
  const { marking, run } = useTools();
  const title = ({ name }: Kind, digit: number): string =>
    selecting ? `Mark as ${name.toLowerCase()} (${digit})` : `${name}: select words, then press ${digit}`;
  return (
    <div role="group" aria-label="The Legend: mark the selected words" className="flex items-center">
      {legend.kinds.map((kind, index) => (
        <button
          key={kind.code}
          title={title(kind, index + 1)}
          onMouseDown={(e) => e.preventDefault()}
          onClick={() => marking.mark(kind)}
          className={`flex items-baseline gap-[6px] px-1.5 py-1 hover:bg-wash ${selecting ? '' : 'cursor-default'}`}
        >
          <Sign kind={kind} className="text-[16px]" />
          <Marked look={kind}>{kind.name}</Marked>
          <small aria-hidden="true" className="text-[12px] text-faint max-[900px]:hidden">
            {index + 1}
          </small>
        </button>
      ))}
      <button
        className="px-1.5 text-soft hover:text-ink"
        title={
          legend.className === null
            ? 'Change the Legend: names, colours, lines, signs'
            : `The Legend of ${legend.className}`
        }
        aria-label="Edit the Legend…"
        onClick={() => run('legend')}
      >
        Edit…
      </button>
    </div>
  );
}

function Tools({ selecting }: { readonly selecting: boolean }) {
  const { marking, run } = useTools();
  const areas = useReader((s) => s.tool === 'area');
  const markOnSelect = useReader((s) => s.markOnSelect);
  return (
    <div
      role="group"
      aria-label="Tools"
      className="flex items-center gap-3.5 border-l border-rule pl-4 max-[1350px]:gap-3 max-[1350px]:pl-3"
    >
      <button
        aria-pressed={areas}
        title="Mark an area or a point, of a page, a picture or the text, to write about it (a)"
        onClick={() => run('area')}
        className={look(areas)}
      >
        Area
      </button>
      <button
        title="Pen, arrows, boxes, words and signs on the page (d)"
        onClick={() => run('draw')}
        className={look(false)}
      >
        Draw
      </button>
      <button
        aria-pressed={markOnSelect}
        title="Whatever I select is marked at once (x). With Alt held, words can still be selected to be copied."
        onClick={() => run('mark on select')}
        className={look(markOnSelect)}
      >
        Mark as I select
      </button>
      {selecting && (
        <button
          title="Copy the selected words, without marking them"
          onMouseDown={(e) => e.preventDefault()}
          onClick={marking.copy}
          className={look(false)}
        >
          Copy
        </button>
      )}
    </div>
  );
}

const look = (on: boolean): string => (on ? 'font-semibold text-tide' : 'text-soft hover:text-ink');
