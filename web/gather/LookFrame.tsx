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

/** The page as it would be kept. What is pointed at is outlined, what is taken out is gone from sight; the page itself is not touched. */
export function LookFrame({ draft, amount, width, removed, area, onFrame, onRemove, onPassage, onArea }: Props) {
  const theme = useTheme();
  const [opened, setOpened] = useState<Opened>();
  const [height, setHeight] = useState(600);
  const [room, setRoom] = useState(0);
  const [pointed, setPointed] = useState<{ left: number; top: number; width: number; height: number }>();
  const scale = width === null || room === 0 || amount === 'main' ? 1 : Math.min(1, room / width);
  const trims = amount === 'whole';

  const onLoad = (frame: HTMLIFrameElement): void => {
    const adapter = openPage(frame);
    const { document, window } = adapter;
    const dress = new PageDress(document, window);
    const sheet = new window.CSSStyleSheet();
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
    void loadReadingFace(window, adapter.stream.text);
    setOpened({ adapter, dress, sheet });
    onFrame(frame);
  };
  const hold = useCallback((node: HTMLElement | null) => {
    if (!node) return;
    const observer = new ResizeObserver(() => setRoom(node.clientWidth));
    observer.observe(node);
    return () => observer.disconnect();
  }, []);

  useEffect(() => {
    if (!opened) return;
    const {
      adapter: { document },
      dress,
      sheet,
    } = opened;
    dress.apply(
      { view: amount === 'main' ? 'main' : 'kept', kind: draft.kind, unit: 1.25 },
      getComputedStyle(window.document.documentElement),
    );
    sheet.replaceSync(trims && removed.length ? `${removed.map(selectorOf).join(',')}{display:none!important}` : '');
    const measure = (): void =>
      setHeight(
        Math.max(200, Math.ceil(document.documentElement.getBoundingClientRect().height), document.body.scrollHeight),
      );
    const observer = new ResizeObserver(measure);
    observer.observe(document.body);
    measure();
    return () => observer.disconnect();
  }, [opened, amount, removed, trims, draft.kind, theme, width]);

  useEffect(() => {
    if (!opened || !trims) return setPointed(undefined);
    const { document } = opened.adapter;
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
      if (found) {
        onRemove(pathTo(found));
        setPointed(undefined);
      }
    };
    document.addEventListener('mousemove', onMove);
    document.addEventListener('mouseleave', onLeave);
    document.addEventListener('click', onClick);
    return () => {
      document.removeEventListener('mousemove', onMove);
      document.removeEventListener('mouseleave', onLeave);
      document.removeEventListener('click', onClick);
    };
  }, [opened, trims, scale, onRemove]);

  useEffect(() => {
    if (!opened || amount !== 'passage') return;
    const { adapter } = opened;
    const follow = (): void => {
      const range = adapter.selection();
      if (range) onPassage({ ...range, words: adapter.stream.text.slice(range.start, range.end) });
    };
    adapter.document.addEventListener('selectionchange', follow);
    return () => adapter.document.removeEventListener('selectionchange', follow);
  }, [opened, amount, onPassage]);

  if (amount === 'link') {
    const { title, description } = draft.meta;
    return (
      <div className="overflow-y-auto bg-sheet px-[72px] py-10 max-[900px]:px-5">
        <h2 className="font-read text-[28px] leading-[34px]">{title}</h2>
        {description && <p className="mt-3 max-w-[60ch] font-read text-[18px] leading-[28px]">{description}</p>}
        <p className="mt-3 break-all text-tide">{draft.address}</p>
      </div>
    );
  }
  return (
    <div ref={hold} tabIndex={0} role="region" aria-label="The page" className="min-h-0 overflow-auto bg-sheet">
      <div
        className="relative mx-auto"
        style={{ width: width === null || amount === 'main' ? '100%' : width * scale, height: height * scale }}
      >
        <iframe
          title={`The page ${draft.meta.title}`}
          src={`/drafts/${draft.id}/`}
          sandbox={frameSandbox()}
          scrolling="no"
          className="block origin-top-left"
          style={{
            width: width === null || amount === 'main' ? '100%' : width,
            height,
            ...(scale === 1 ? {} : { transform: `scale(${scale})` }),
          }}
          onLoad={(e) => onLoad(e.currentTarget)}
        />
        {pointed && (
          <div
            aria-hidden="true"
            className="pointer-events-none absolute border-2 border-brick bg-brick/10"
            style={pointed}
          >
            <span className="absolute right-0 top-0 bg-brick px-2 py-0.5 text-[12px] text-paper">remove</span>
          </div>
        )}
        {amount === 'picture' && <AreaLayer area={area} scale={scale} onArea={onArea} />}
      </div>
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
