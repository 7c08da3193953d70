import { useDocument } from '../../reader/document/document-context';
import { inkPath } from '../../reader/drawing/ink-path';
import { onPage } from '../../reader/drawing/laid';
import { cssColour } from '../../reader/drawing/tools';
import type { OpenPage } from '../../reader/document/use-page';
import { inkOn, toneOn } from '../../page/spot-box';
import type { LaidOut } from '@avrelle/core/ink';
import type { LiveInk, Stroke } from '@avrelle/core/wire';
import { count } from '../../ui/when';
import { useRoomView } from '../room-context';

const LAYER = 'pointer-events-none absolute inset-0 h-full w-full overflow-visible';

const DOT = [
  'pointer-events-none absolute left-0 top-0 z-[17] -ml-[15px] -mt-[15px] grid h-[30px] w-[30px] place-items-center',
  'rounded-full bg-[color-mix(in_srgb,var(--brick)_18%,transparent)]',
].join(' ');

/** What who shows draws, and where their pointer is: at the same words here. */
export function ShownInk() {
  const { page } = useDocument();
  const ink = useRoomView(({ shown }) => shown.ink);
  if (!page) return null;
  return (
    <>
      {ink.length > 0 && (
        <svg className={`${LAYER} z-[16]`} role="img" aria-label={`${count(ink.length, 'stroke')} drawn now`}>
          {ink.map((stroke) => (
            <Drawn key={stroke.id} page={page} stroke={stroke} />
          ))}
        </svg>
      )}
      <Pointer page={page} />
    </>
  );
}

function Drawn({ page, stroke: { ink } }: { readonly page: OpenPage; readonly stroke: Stroke }) {
  const laid = layOut(page, ink);
  if (!laid) return null;
  const { tool, colour, width, tied } = ink.spot;
  return (
    <path
      data-theme={toneOn(tied.to === 'picture' ? tied.on : undefined)}
      data-shown-ink=""
      d={inkPath(tool, laid.strokes, width * laid.unit).d}
      fill={cssColour(colour, tool)}
      opacity={tool === 'broad' ? 0.55 : 1}
    />
  );
}

/** Where it stands here; what would stand beyond the edge of a narrow page is moved onto it. */
function layOut({ adapter }: OpenPage, { spot, range }: LiveInk): LaidOut | undefined {
  const laid = inkOn(adapter, spot.tied, range);
  return laid && { ...laid, strokes: onPage(laid.strokes, adapter.shownAt(adapter.window.innerWidth, 0).x) };
}

function Pointer({ page }: { readonly page: OpenPage }) {
  const pointer = useRoomView(({ shown }) => shown.pointer);
  const [x, y] = (pointer && layOut(page, pointer)?.strokes[0]?.[0]) ?? [];
  if (x === undefined || y === undefined) return null;
  return (
    <span data-shown-pointer="" aria-hidden="true" className={DOT} style={{ transform: `translate(${x}px, ${y}px)` }}>
      <span className="h-2.5 w-2.5 rounded-full bg-brick" />
    </span>
  );
}
