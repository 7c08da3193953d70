import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { areaBetween, isPin, type AreaSpot, type Spot } from '@avrelle/core/anchor';
import type { Block } from '@avrelle/core/text';
import { Sign } from '../../../ui/Sign';
import { blockOf } from '../../../page/block-of';
import type { Box, StreamRange } from '../../../page/page-frame';
import { areaBox, toneOn } from '../../../page/spot-box';
import { useDocument } from '../../document/document-context';
import type { OpenPage } from '../../document/use-page';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

/** Smaller than this both ways, in pixels, a drag was meant as a click. */
const LEAST = 8;

/** Areas and points on pages and pictures, over the frame; while drawing, the pointer makes a new one. */
export function Areas() {
  const { visible: threads, store } = useSession();
  const { page, layout, draftBox } = useDocument();
  const expanded = useReader((s) => s.expanded);
  const drawing = useReader((s) => s.tool === 'area');
  const marked = useMemo(
    () =>
      (page && layout > 0 ? threads : []).flatMap((thread) => {
        const spot = thread.root.anchor?.spot;
        const box = page && spot?.type === 'area' ? areaBox(page.adapter, spot) : undefined;
        return box && spot?.type === 'area' ? [{ thread, spot, box }] : [];
      }),
    [page, layout, threads],
  );
  if (!page || layout === 0) return null;
  return (
    <>
      {marked.map(({ thread: { root }, spot, box }) => {
        const { kind } = root;
        const line = `var(--${kind.pigment}-line)`;
        const shape = isPin(spot)
          ? { left: box.left - 11, top: box.top - 11, width: 22, height: 22, borderRadius: 11 }
          : box;
        return (
          <button
            key={root.id}
            data-theme={toneOn(spot.on)}
            aria-label={`${kind.name}, ${root.author.name}: ${isPin(spot) ? 'point' : 'area'}`}
            onClick={() => store.dispatch({ type: 'expand', id: root.id })}
            className="absolute z-10 flex items-start justify-start bg-sheet/0 hover:bg-tide/10"
            style={{
              ...shape,
              border: `${expanded.has(root.id) ? 3 : 2}px solid ${line}`,
              ...(isPin(spot) ? { background: 'var(--sheet)' } : {}),
            }}
          >
            <Sign kind={root.kind} className={isPin(spot) ? 'm-auto text-[13px]' : 'bg-sheet px-1 text-[13px]'} />
          </button>
        );
      })}
      {draftBox && (
        <div
          aria-hidden="true"
          className="absolute z-10 border-2 border-dashed border-tide"
          style={{
            left: draftBox.left - 1,
            top: draftBox.top - 1,
            width: Math.max(8, draftBox.width),
            height: Math.max(8, draftBox.height),
          }}
        />
      )}
      {drawing && <NewArea page={page} />}
    </>
  );
}

interface Point {
  readonly x: number;
  readonly y: number;
}
interface Begun extends Point {
  readonly lies: { readonly on: AreaSpot['on']; readonly box: Box; readonly block: Block } | undefined;
}

/** While areas are marked it takes the pointer: from corner to corner, or a click for a point. */
function NewArea({ page }: { readonly page: OpenPage }) {
  const { store } = useSession();
  const { marking, drawing } = useTools();
  const drawn = (spot: Spot, about: StreamRange): void => {
    store.dispatch({ type: 'tool', tool: 'read' });
    marking.writeAt(spot, about);
  };
  const overWords = (from: Point, to: Point): void => {
    const made = drawing.areaOverWords(from, to);
    if (made) drawn(made.spot, made.range);
  };
  const begun = useRef<Begun>(undefined);
  const [shown, setShown] = useState<Box>();
  const at = (event: PointerEvent<HTMLDivElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const spotTo = ({ on, box }: NonNullable<Begun['lies']>, from: Point, to: Point): AreaSpot => {
    const share = (point: Point): Point => ({
      x: (point.x - box.left) / box.width,
      y: (point.y - box.top) / box.height,
    });
    return areaBetween(on, share(from), share(to), LEAST / Math.min(box.width, box.height));
  };
  const down = (event: PointerEvent<HTMLDivElement>): void => {
    const point = at(event);
    const holder = page.adapter.holderAt(point.x, point.y);
    const block = holder && blockOf(page.adapter, holder.element);
    event.currentTarget.setPointerCapture(event.pointerId);
    begun.current = { ...point, lies: holder && block && { ...holder, block } };
  };
  const move = (event: PointerEvent<HTMLDivElement>): void => {
    const from = begun.current;
    const to = at(event);
    if (from)
      setShown(
        from.lies
          ? areaBox(page.adapter, spotTo(from.lies, from, to))
          : {
              left: Math.min(from.x, to.x),
              top: Math.min(from.y, to.y),
              width: Math.abs(to.x - from.x),
              height: Math.abs(to.y - from.y),
            },
      );
  };
  const up = (event: PointerEvent<HTMLDivElement>): void => {
    const from = begun.current;
    const to = at(event);
    begun.current = undefined;
    setShown(undefined);
    if (from?.lies) drawn(spotTo(from.lies, from, to), from.lies.block);
    else if (from) overWords(from, Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y)) < LEAST ? from : to);
  };
  return (
    <div
      role="application"
      aria-label="Drag over a page, a picture or words to mark an area; click for a point"
      className="absolute inset-0 z-20 cursor-crosshair touch-none"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
    >
      {shown && <div className="absolute border-2 border-tide bg-tide/10" style={{ ...shown }} />}
    </div>
  );
}
