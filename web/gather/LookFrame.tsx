import { useCallback, useEffect, useRef, useState, type PointerEvent } from 'react';
import type { Amount, Draft } from '@avrelle/core/wire';
import { pathTo } from '../page/element-path';
import { openPage, type PageAdapter } from '../page/page-frame';
import { frameSandbox } from '../page/sandbox';
import { loadReadingFace, PageDress } from '../reader/document/page-style';
import { useTheme } from '../theme/use-theme';
import type { Area } from './picture-of-area';
import { sectionAt, selectorOf } from './trim';

interface Props {
  readonly draft: Draft;
  readonly amount: Amount;
  readonly width: number | null;
  readonly removed: readonly string[];
  readonly area: Area | undefined;
  onFrame(frame: HTMLIFrameElement): void;
  onRemove(path: string): void;
  onPassage(passage: { start: number; end: number; words: string } | undefined): void;
  onArea(area: Area | undefined): void;
}

interface Opened {
  readonly adapter: PageAdapter;
  readonly dress: PageDress;
  readonly sheet: CSSStyleSheet;
}

type Pointed = Pick<DOMRect, 'left' | 'top' | 'width' | 'height'>;

/** How much room there is for the page, in pixels; 0 until that is known. */
function useRoom() {
  const [room, setRoom] = useState(0);
  const hold = useCallback((node: HTMLElement | null) => {
    if (!node) return;
    const observer = new ResizeObserver(() => setRoom(node.clientWidth));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);
  return { room, hold };
}

/** Shows the page as it would be kept, without what was taken out; gives its height, in its own pixels. */
function useDressed(opened: Opened | undefined, { draft: { kind }, amount, removed, width }: Props): number {
  const theme = useTheme();
  const [height, setHeight] = useState(600);
  useEffect(() => {
    if (!opened) return;
    const { adapter, dress, sheet } = opened;
    const { document } = adapter;
    const tokens = getComputedStyle(window.document.documentElement);
    dress.apply({ view: amount === 'main' ? 'main' : 'kept', kind, unit: 1.25 }, tokens);
    const without = amount === 'whole' && removed.length > 0;
    sheet.replaceSync(without ? `${removed.map(selectorOf).join(',')}{display:none!important}` : '');
    const measure = (): void =>
      setHeight(
        Math.max(200, Math.ceil(document.documentElement.getBoundingClientRect().height), document.body.scrollHeight),
      );
    const observer = new ResizeObserver(measure);
    observer.observe(document.body);
    measure();
    return () => observer.disconnect();
  }, [opened, amount, removed, kind, theme, width]);
  return height;
}

/** While parts are taken out: the one that is pointed at, as it lies in the frame; a press takes it out. */
function usePointing(adapter: PageAdapter | undefined, scale: number, onRemove: Props['onRemove']) {
  const [pointed, setPointed] = useState<Pointed>();
  useEffect(() => {
    if (!adapter) return setPointed(undefined);
    const { document } = adapter;
    const section = (event: MouseEvent): Element | undefined =>
      sectionAt(event.target as Element, event.shiftKey ? 1 : 0);
    const onMove = (event: MouseEvent): void => {
      const box = section(event)?.getBoundingClientRect();
      setPointed(
        box && { left: box.left * scale, top: box.top * scale, width: box.width * scale, height: box.height * scale },
      );
    };
    const onLeave = (): void => setPointed(undefined);
    const onClick = (event: MouseEvent): void => {
      event.preventDefault();
      const found = section(event);
      if (!found) return;
      onRemove(pathTo(found));
      setPointed(undefined);
    };
    document.addEventListener('mousemove', onMove);
    document.addEventListener('mouseleave', onLeave);
    document.addEventListener('click', onClick);
    return () => {
      document.removeEventListener('mousemove', onMove);
      document.removeEventListener('mouseleave', onLeave);
      document.removeEventListener('click', onClick);
    };
  }, [adapter, scale, onRemove]);
  return pointed;
}

/** Tells which words are selected. */
function useSelecting(adapter: PageAdapter | undefined, onPassage: Props['onPassage']): void {
  useEffect(() => {
    if (!adapter) return;
    const follow = (): void => {
      const range = adapter.selection();
      if (range) onPassage({ ...range, words: adapter.stream.text.slice(range.start, range.end) });
    };
    adapter.document.addEventListener('selectionchange', follow);
    return () => adapter.document.removeEventListener('selectionchange', follow);
  }, [adapter, onPassage]);
}

/** The page as it would be kept; what is pointed at is outlined. The page itself is not touched. */
export function LookFrame(props: Props) {
  const { draft, amount, width, area, onFrame, onRemove, onPassage, onArea } = props;
  const [opened, setOpened] = useState<Opened>();
  const { room, hold } = useRoom();
  const own = amount === 'main' ? null : width;
  const scale = own === null || room === 0 ? 1 : Math.min(1, room / own);
  const height = useDressed(opened, props);
  const pointed = usePointing(amount === 'whole' ? opened?.adapter : undefined, scale, onRemove);
  useSelecting(amount === 'passage' ? opened?.adapter : undefined, onPassage);
  const onLoad = (frame: HTMLIFrameElement): void => {
    setOpened(openToLook(frame));
    onFrame(frame);
  };
  if (amount === 'link') return <LinkAlone draft={draft} />;
  return (
    <div ref={hold} tabIndex={0} role="region" aria-label="The page" className="min-h-0 overflow-auto bg-sheet">
      <div className="relative mx-auto" style={{ width: own === null ? '100%' : own * scale, height: height * scale }}>
        <iframe
          title={`The page ${draft.meta.title}`}
          src={`/drafts/${draft.id}/`}
          sandbox={frameSandbox()}
          scrolling="no"
          className="block origin-top-left"
          style={{ width: own ?? '100%', height, ...scaled(scale) }}
          onLoad={(e) => onLoad(e.currentTarget)}
        />
        <PointedAt box={pointed} />
        {amount === 'picture' && <AreaLayer area={area} scale={scale} onArea={onArea} />}
      </div>
    </div>
  );
}

const scaled = (scale: number) => (scale === 1 ? {} : { transform: `scale(${scale})` });

function PointedAt({ box }: { readonly box: Pointed | undefined }) {
  if (!box) return null;
  return (
    <div aria-hidden="true" className="pointer-events-none absolute border-2 border-brick bg-brick/10" style={box}>
      <span className="absolute right-0 top-0 bg-brick px-2 py-0.5 text-[12px] text-paper">remove</span>
    </div>
  );
}

function openToLook(frame: HTMLIFrameElement): Opened {
  const adapter = openPage(frame);
  const { document, window } = adapter;
  const sheet = new window.CSSStyleSheet();
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  void loadReadingFace(window, adapter.stream.text);
  return { adapter, dress: new PageDress(document, window), sheet };
}

/** What is kept of a page of which only the link is. */
function LinkAlone({ draft: { address, meta } }: Pick<Props, 'draft'>) {
  return (
    <div className="overflow-y-auto bg-sheet px-[72px] py-10 max-[900px]:px-5">
      <h2 className="font-read text-[28px] leading-[34px]">{meta.title}</h2>
      {meta.description && <p className="mt-3 max-w-[60ch] font-read text-[18px] leading-[28px]">{meta.description}</p>}
      <p className="mt-3 break-all text-tide">{address}</p>
    </div>
  );
}

/** Draws an area, in the page's own pixels. */
function AreaLayer({
  area,
  scale,
  onArea,
}: {
  area: Area | undefined;
  scale: number;
  onArea: (area: Area | undefined) => void;
}) {
  const start = useRef<{ x: number; y: number }>(undefined);
  const at = (event: PointerEvent<HTMLDivElement>): { x: number; y: number } => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
  };
  const drag = (event: PointerEvent<HTMLDivElement>): void => {
    if (!start.current) return;
    const { x, y } = at(event);
    const from = start.current;
    onArea({
      x: Math.min(x, from.x),
      y: Math.min(y, from.y),
      width: Math.abs(x - from.x),
      height: Math.abs(y - from.y),
    });
  };
  return (
    <div
      role="application"
      aria-label="Draw an area of the page"
      className="absolute inset-0 cursor-crosshair touch-none bg-ink/10"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        start.current = at(e);
        onArea(undefined);
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        start.current = undefined;
      }}
    >
      {area && (
        <div
          className="absolute border-2 border-tide bg-transparent shadow-[0_0_0_9999px_rgb(0_0_0/0.12)]"
          style={{ left: area.x * scale, top: area.y * scale, width: area.width * scale, height: area.height * scale }}
        />
      )}
    </div>
  );
}
