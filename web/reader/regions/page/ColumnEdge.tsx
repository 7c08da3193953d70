import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useDocument } from '../../document/document-context';
import { adjust, RANGES } from '../../document/type';

/** The right edge of the column: dragged, or moved with the arrow keys. */
export function ColumnEdge() {
  const { type, setType, columnRight } = useDocument();
  const begun = useRef<{ readonly x: number; readonly measure: number }>(undefined);
  const down = (event: PointerEvent<HTMLElement>): void => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    begun.current = { x: event.clientX, measure: type.measure };
  };
  const move = (event: PointerEvent<HTMLElement>): void => {
    const start = begun.current;
    if (start)
      setType(
        adjust(
          { ...type, measure: start.measure },
          'measure',
          Math.round((event.clientX - start.x) / RANGES.measure.step),
        ),
      );
  };
  const key = (event: KeyboardEvent): void => {
    const steps = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (steps === undefined) return;
    event.preventDefault();
    setType(adjust(type, 'measure', steps));
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label="Width of the column"
      aria-valuenow={type.measure}
      aria-valuemin={RANGES.measure.least}
      aria-valuemax={RANGES.measure.most}
      title="Drag to make the column wider or narrower"
      className="group absolute inset-y-0 z-[5] w-3 cursor-col-resize touch-none max-[900px]:hidden"
      style={{ left: columnRight + 8 }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => {
        begun.current = undefined;
      }}
      onKeyDown={key}
    >
      <span className="absolute inset-y-0 left-[5px] w-px bg-transparent group-hover:bg-[var(--rule-strong)] group-focus-visible:bg-tide" />
    </div>
  );
}
