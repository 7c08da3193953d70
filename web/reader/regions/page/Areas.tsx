import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { areaBetween, isPin, type AreaSpot } from '@avrelle/core/anchor';
import type { Block } from '@avrelle/core/text';
import { Sign } from '../../../ui/Sign';
import { blockOf } from '../../../page/block-of';
import type { Box } from '../../../page/page-frame';
import { areaBox, toneOn } from '../../../page/spot-box';
import type { Thread } from '../../model/thread';
import type { OpenPage } from '../../document/use-page';

interface Props {
  readonly page: OpenPage | undefined;
  readonly layout: number;
  readonly threads: readonly Thread[];
  readonly opened: ReadonlySet<string>;
  readonly drawing: boolean;
  /** Where what is being written about lies. */
  readonly draft: Box | undefined;
  onOpen(id: string): void;
  onDrawn(spot: AreaSpot, block: Block): void;
  /** Drawn over words, from corner to corner; both the same for a point. */
  onOverWords(from: Point, to: Point): void;
}

/** Smaller than this both ways, in pixels, a drag was meant as a click. */
const LEAST = 8;

/** Areas and points on pages and pictures, over the frame; while drawing, the pointer makes a new one. */
export function Areas({ page, layout, threads, opened, drawing, draft: made, onOpen, onDrawn, onOverWords }: Props) {
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
            onClick={() => onOpen(root.id)}
            className="absolute z-10 flex items-start justify-start bg-sheet/0 hover:bg-tide/10"
            style={{
              ...shape,
              border: `${opened.has(root.id) ? 3 : 2}px solid ${line}`,
              ...(isPin(spot) ? { background: 'var(--sheet)' } : {}),
            }}
          >
            <Sign kind={root.kind} className={isPin(spot) ? 'm-auto text-[13px]' : 'bg-sheet px-1 text-[13px]'} />
          </button>
        );
      })}
      {made && (
        <div
          aria-hidden="true"
          className="absolute z-10 border-2 border-dashed border-tide"
          style={{
            left: made.left - 1,
            top: made.top - 1,
            width: Math.max(8, made.width),
            height: Math.max(8, made.height),
          }}
        />
      )}
      {drawing && <Drawing page={page} onDrawn={onDrawn} onOverWords={onOverWords} />}
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

function Drawing({ page, onDrawn, onOverWords }: Pick<Props, 'onDrawn' | 'onOverWords'> & { page: OpenPage }) {
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
    if (from?.lies) onDrawn(spotTo(from.lies, from, to), from.lies.block);
    else if (from) onOverWords(from, Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y)) < LEAST ? from : to);
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
