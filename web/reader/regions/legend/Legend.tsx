import type { ReactNode } from 'react';
import type { Kind } from '@avrelle/core/key';
import { Marked, Sign } from '../../../ui/Sign';
import { useKey } from '../../session/key';
import type { OpenPage } from '../../document/use-page';
import { useSelecting } from '../../document/use-selection';

interface Props {
  readonly page: OpenPage | undefined;
  onKind(kind: Kind): void;
  onCopy(): void;
  /** Opens the Key to be changed. */
  onKey(): void;
  onKeys(): void;
  readonly marking: boolean;
  onMarking(on: boolean): void;
  /** True while an area is being marked. */
  readonly drawing: boolean;
  onDrawing(on: boolean): void;
  /** Takes the drawing tools out. */
  onDraw(): void;
  /** What is shown, and how much is read. */
  readonly children: ReactNode;
}

/** The Key itself; with words selected a kind marks them. Beside it the tools, whose marks are shown and how much is left. */
export function Legend({
  page,
  onKind,
  onCopy,
  onKey,
  onKeys,
  marking,
  onMarking,
  drawing,
  onDrawing,
  onDraw,
  children,
}: Props) {
  const selecting = useSelecting(page);
  const { kinds, className } = useKey();
  const tool = (on: boolean | undefined): string => (on ? 'font-semibold text-tide' : 'text-soft hover:text-ink');
  return (
    <footer className="steps-back flex h-[50px] items-center gap-4 overflow-x-auto whitespace-nowrap border-t border-strong px-6 text-[14px] max-[1350px]:gap-2.5 max-[900px]:px-3">
      <div role="group" aria-label="The Key: mark the selected words" className="flex items-center">
        {kinds.map((kind, index) => (
          <button
            key={kind.code}
            title={
              selecting
                ? `Mark as ${kind.name.toLowerCase()} (${index + 1})`
                : `${kind.name}: select words, then press ${index + 1}`
            }
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => onKind(kind)}
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
          title={className === null ? 'Change the Key: names, colours, lines, signs' : `The Key of ${className}`}
          onClick={onKey}
        >
          Key…
        </button>
      </div>
      <div
        role="group"
        aria-label="Tools"
        className="flex items-center gap-3.5 border-l border-rule pl-4 max-[1350px]:gap-3 max-[1350px]:pl-3"
      >
        <button
          aria-pressed={drawing}
          title="Mark an area or a point, of a page, a picture or the text, to write about it (a)"
          onClick={() => onDrawing(!drawing)}
          className={tool(drawing)}
        >
          Area
        </button>
        <button
          title="Pen, arrows, boxes, words and signs on the page (d)"
          onClick={onDraw}
          className="text-soft hover:text-ink"
        >
          Draw
        </button>
        <button
          aria-pressed={marking}
          title={`Whatever I select is marked at once (x). With Alt held, words can still be selected to be copied.`}
          onClick={() => onMarking(!marking)}
          className={tool(marking)}
        >
          Mark as I select
        </button>
        {selecting && (
          <button
            title="Copy the selected words, without marking them"
            onMouseDown={(e) => e.preventDefault()}
            onClick={onCopy}
            className="text-soft hover:text-ink"
          >
            Copy
          </button>
        )}
      </div>
      <span aria-live="polite" className="sr-only">
        {drawing && 'Drag over an area; click for a point'}
        {!drawing && selecting && 'Press a digit to mark, or type to write a note'}
      </span>
      <div className="ml-auto flex items-center gap-5 max-[1350px]:gap-3">
        {children}
        <button
          onClick={onKeys}
          aria-label="Keys"
          title="Keys"
          className="border border-strong px-1.5 text-[12px] text-soft"
        >
          ?
        </button>
      </div>
    </footer>
  );
}
