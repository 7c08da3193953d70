import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { Link, useNavigate, useParams } from 'react-router';
import type { SourceDetail } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { useWrite } from '../data/use-write';
import { keys, useSource } from '../data/queries';
import { Alert } from '../ui/Alert';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { apply, EDITS, leftOf, rectBetween, type Edit, type EditType, type Rect } from './edits';
import { PageHeading } from '../ui/PageHeading';
import { useLatest } from '../ui/use-latest';

/** Cropping a picture one keeps, and hiding parts of it for good. */
export default function PicturePage() {
  const { id = '' } = useParams();
  const source = useSource(id);
  if (!source.data)
    return (
      <main>
        <State of={source} />
      </main>
    );
  const { kind, owned, lead } = source.data;
  if (kind !== 'image' || !owned || lead === null)
    return (
      <main className="p-8">
        <PageHeading>Nothing to edit here</PageHeading>
        <p className="mt-2 text-soft">
          Only the owner of a picture can crop it or black out parts of it.{' '}
          <Link className="act" to={`/source/${id}`}>
            Back to it
          </Link>
        </p>
      </main>
    );
  return <Editing key={source.data.versionId} source={source.data} picture={lead} />;
}

const EDIT_WORDS: Readonly<Record<EditType, { readonly name: string; readonly does: string; readonly act: string }>> = {
  crop: { name: 'Crop', does: 'Drag over the part you want to keep.', act: 'Crop to this' },
  hide: { name: 'Black out', does: 'Drag over the part nobody should see.', act: 'Black this out' },
  pixelate: {
    name: 'Pixelate',
    does: 'Drag over the part nobody should recognise. Large letters can sometimes still be guessed: black those out.',
    act: 'Pixelate this',
  },
};

/** The picture as it is kept, once it has come. */
function useImage(versionId: string, onWrong: (words: string) => void): HTMLImageElement | undefined {
  const [image, setImage] = useState<HTMLImageElement>();
  useEffect(() => {
    const loaded = new Image();
    loaded.onload = () => setImage(loaded);
    loaded.onerror = () => onWrong('The picture cannot be shown by this browser.');
    loaded.src = `/files/${versionId}`;
  }, [versionId, onWrong]);
  return image;
}

/** What is done to the picture, step by step, and the area that is to be next. */
function useEdits(image: HTMLImageElement | undefined) {
  const [edits, setEdits] = useState<readonly Edit[]>([]);
  const [tool, setTool] = useState<EditType>('crop');
  const [area, setArea] = useState<Rect>();
  const whole = useMemo(
    (): Rect => ({ x: 0, y: 0, width: image?.naturalWidth ?? 1, height: image?.naturalHeight ?? 1 }),
    [image],
  );
  const made = useMemo(() => image && drawn(image, edits), [image, edits]);
  const undo = useCallback(() => {
    setEdits((all) => all.slice(0, -1));
    setArea(undefined);
  }, []);
  const take = (): void => {
    if (!area) return;
    setEdits((all) => [...all, { type: tool, area }]);
    setArea(undefined);
  };
  return { edits, tool, setTool, area, setArea, whole, made, left: leftOf(edits, whole), undo, take };
}

/** Ctrl Z takes the last step back, but not in a field; Escape lets the area go. */
function useEditKeys(undo: () => void, letGo: () => void): void {
  const latest = useLatest({ undo, letGo });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const isUndo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
      if (isUndo && !(event.target as HTMLElement).closest('input')) {
        event.preventDefault();
        latest.current.undo();
      }
      if (event.key === 'Escape') latest.current.letGo();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [latest]);
}

type Edits = ReturnType<typeof useEdits>;

/** Keeps the picture as it is seen, and nothing else of it; throws what the server says. */
function useKeeping(source: SourceDetail, picture: string): (edits: Edits) => Promise<void> {
  const client = useQueryClient();
  const putting = useWrite('PUT /api/sources/:id/picture');
  const navigate = useNavigate();
  const messages = useMessages();
  return async ({ left, whole, made }) => {
    const query = {
      from: picture,
      x: left.x / whole.width,
      y: left.y / whole.height,
      width: left.width / whole.width,
      height: left.height / whole.height,
    };
    const file = await asPng(made!, left);
    const kept = await putting.send({ params: { id: source.id }, query, file });
    client.setQueryData(keys.source(source.id), kept);
    await client.invalidateQueries();
    messages.tell('The picture is kept as it is now; the old one is gone.');
    void navigate(`/source/${source.id}`);
  };
}

function Editing({ source, picture }: { source: SourceDetail; picture: string }) {
  const [asking, setAsking] = useState(false);
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const editing = useEdits(useImage(source.versionId, setWrong));
  const { edits, tool, area, setArea, made, left, undo } = editing;
  useEditKeys(undo, () => setArea(undefined));
  const keep = useKeeping(source, picture);
  const onKeep = (): void => {
    setBusy(true);
    keep(editing).catch((error: unknown) => {
      setWrong(wordsOf(error));
      setAsking(false);
      setBusy(false);
    });
  };
  return (
    <main className="grid min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr_auto]">
      <header className="flex items-center gap-5 border-b border-rule px-6 py-[5px] text-[14px] text-soft max-[900px]:px-3">
        <Link to={`/source/${source.id}`} className="truncate hover:text-ink">
          ‹ {source.title}
        </Link>
        <PageHeading className="mx-auto font-read text-[15px] !font-normal italic text-ink max-[600px]:sr-only">
          Crop and black out
        </PageHeading>
        <span className="ml-auto whitespace-nowrap tabular-nums">
          {left.width} × {left.height} pixels
        </span>
      </header>
      <Canvas made={made} left={left} area={area} tool={tool} onArea={setArea} />
      <footer className="flex min-h-[50px] flex-wrap items-center gap-x-5 gap-y-2 border-t-2 border-tide bg-sheet px-6 py-2 text-[14px] max-[900px]:px-3">
        <Choices {...editing} />
        {wrong && <Alert>{wrong}</Alert>}
        <div className="ml-auto flex items-center gap-4">
          <button
            className="text-soft hover:text-ink disabled:opacity-50"
            disabled={edits.length === 0}
            title="Undo (Ctrl Z)"
            onClick={undo}
          >
            Undo
          </button>
          <button className="press" disabled={edits.length === 0 || busy} onClick={() => setAsking(true)}>
            Keep it so
          </button>
        </div>
      </footer>
      <Sure open={asking} busy={busy} onOpen={setAsking} onKeep={onKeep} />
    </main>
  );
}

/** What is to be done, to which area, to the pixel. */
function Choices({ tool, setTool, area, setArea, left, take }: Edits) {
  return (
    <>
      <div role="radiogroup" aria-label="What is done" className="flex gap-4">
        {EDITS.map((each) => (
          <button
            key={each}
            role="radio"
            aria-checked={each === tool}
            title={EDIT_WORDS[each].does}
            onClick={() => setTool(each)}
            className={each === tool ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
          >
            {EDIT_WORDS[each].name}
          </button>
        ))}
      </div>
      <Exactly area={area} left={left} onArea={setArea} />
      <button className="act" disabled={!area} onClick={take}>
        {EDIT_WORDS[tool].act}
      </button>
      {!area && <span className="max-w-[44ch] text-[13px] leading-[17px] text-soft">{EDIT_WORDS[tool].does}</span>}
    </>
  );
}

interface SureProps {
  readonly open: boolean;
  readonly busy: boolean;
  onOpen(open: boolean): void;
  onKeep(): void;
}

/** Asked before the old picture is deleted for good. */
function Sure({ open, busy, onOpen, onKeep }: SureProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content className="over fixed left-1/2 top-1/2 w-[440px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 p-6">
          <Dialog.Title className="mb-2 text-[20px]">Keep the picture so?</Dialog.Title>
          <Dialog.Description className="mb-4 text-soft">
            The picture as it was, and every earlier version of it, is deleted for good: what you cut off or hid cannot
            be brought back here. Whoever keeps the same picture in a source of their own still has theirs. Marks stay
            in their places.
          </Dialog.Description>
          <div className="flex gap-4">
            <button className="press" disabled={busy} onClick={onKeep}>
              {busy ? 'Being kept…' : 'Delete the old picture, keep this one'}
            </button>
            <Dialog.Close className="act">Not yet</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The picture as it will be, as large as there is room; a drag over it makes an area. */
function Canvas({
  made,
  left,
  area,
  tool,
  onArea,
}: {
  made: HTMLCanvasElement | undefined;
  left: Rect;
  area: Rect | undefined;
  tool: EditType;
  onArea: (area: Rect | undefined) => void;
}) {
  const shown = useRef<HTMLCanvasElement>(null);
  const from = useRef<{ x: number; y: number }>(undefined);
  useEffect(() => {
    const node = shown.current;
    if (!node || !made) return;
    node.width = left.width;
    node.height = left.height;
    node.getContext('2d')!.drawImage(made, left.x, left.y, left.width, left.height, 0, 0, left.width, left.height);
  }, [made, left]);
  const at = (event: PointerEvent<HTMLElement>): { x: number; y: number } => {
    const box = event.currentTarget.getBoundingClientRect();
    return {
      x: left.x + ((event.clientX - box.left) / box.width) * left.width,
      y: left.y + ((event.clientY - box.top) / box.height) * left.height,
    };
  };
  const share = (value: number, of: number): string => `${(100 * value) / of}%`;
  return (
    <div className="grid min-h-0 place-items-center overflow-hidden bg-paper p-6 max-[900px]:p-3">
      <div
        className="relative max-h-full max-w-full cursor-crosshair touch-none"
        style={{
          aspectRatio: `${left.width} / ${left.height}`,
          width: `min(100%, ${left.width}px, (100vh - 230px) * ${left.width / left.height})`,
        }}
        role="application"
        aria-label={EDIT_WORDS[tool].does}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          from.current = at(e);
          onArea(undefined);
        }}
        onPointerMove={(e) => {
          if (from.current) onArea(rectBetween(from.current, at(e), left));
        }}
        onPointerUp={() => {
          from.current = undefined;
        }}
      >
        <canvas ref={shown} className="block h-full w-full outline outline-1 outline-[var(--rule-strong)]" />
        {area && (
          <div
            aria-hidden="true"
            className={`absolute border-2 ${tool === 'crop' ? 'border-tide shadow-[0_0_0_9999px_rgb(0_0_0/0.35)] [clip-path:inset(-9999px)]' : 'border-brick bg-black/40'}`}
            style={{
              left: share(area.x - left.x, left.width),
              top: share(area.y - left.y, left.height),
              width: share(area.width, left.width),
              height: share(area.height, left.height),
            }}
          />
        )}
      </div>
    </div>
  );
}

const SIDES = [
  ['x', 'Left'],
  ['y', 'Top'],
  ['width', 'Width'],
  ['height', 'Height'],
] as const;

/** The area in pixels, to the pixel and without a pointer. */
function Exactly({
  area,
  left,
  onArea,
}: {
  area: Rect | undefined;
  left: Rect;
  onArea: (area: Rect | undefined) => void;
}) {
  const change = (side: keyof Rect, value: number): void => {
    const to = { ...(area ?? left), [side]: value };
    if (Number.isFinite(value))
      onArea(rectBetween(to, { x: to.x + Math.max(1, to.width), y: to.y + Math.max(1, to.height) }, left));
  };
  return (
    <div role="group" aria-label="The area in pixels" className="flex flex-wrap gap-3 text-[13px] text-soft">
      {SIDES.map(([side, name]) => (
        <label key={side} className="flex items-baseline gap-1">
          {name}
          <input
            type="number"
            min={0}
            className="field w-[58px] tabular-nums"
            value={area ? area[side] : ''}
            onChange={(e) => change(side, e.target.valueAsNumber)}
          />
        </label>
      ))}
    </div>
  );
}

function drawn(image: HTMLImageElement, edits: readonly Edit[]): HTMLCanvasElement {
  const canvas = Object.assign(document.createElement('canvas'), {
    width: image.naturalWidth,
    height: image.naturalHeight,
  });
  const pen = canvas.getContext('2d', { willReadFrequently: true })!;
  pen.drawImage(image, 0, 0);
  const pixels = pen.getImageData(0, 0, canvas.width, canvas.height);
  for (const edit of edits) apply(pixels, edit);
  pen.putImageData(pixels, 0, 0);
  return canvas;
}

function asPng(made: HTMLCanvasElement, { x, y, width, height }: Rect): Promise<Blob> {
  const canvas = Object.assign(document.createElement('canvas'), { width, height });
  canvas.getContext('2d')!.drawImage(made, x, y, width, height, 0, 0, width, height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('This picture is too large for the browser.'))),
      'image/png',
    ),
  );
}
