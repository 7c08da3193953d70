import { memo, useEffect, useRef, useState } from 'react';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { wordsOf } from '../../../data/api';
import { useTheme } from '../../../theme/use-theme';
import { useReader } from '../../session/reader-context';
import { useDocument } from '../document-context';
import { closePdf, openPdf } from './pdf-file';
import { withoutPaper } from './without-paper';

interface Props {
  readonly address: string;
  readonly password: string | undefined;
}

interface PageBox {
  readonly number: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Screens above and below what is seen that are drawn ahead. */
const AHEAD = 1;
const MOST_PIXELS = 16_000_000;

/** The pictures of a PDF's pages, over the frame that holds their words. Only those near what is seen are drawn. */
export default function PdfPages({ address, password }: Props) {
  const { page, layout } = useDocument();
  const seen = useReader((s) => s.scroll);
  const dark = useTheme() === 'night';
  const [pdf, setPdf] = useState<PDFDocumentProxy>();
  const [wrong, setWrong] = useState('');
  const [boxes, setBoxes] = useState<readonly PageBox[]>([]);

  useEffect(() => {
    let gone = false;
    openPdf(address, password).then(
      (document) => {
        if (gone) return;
        setPdf(document);
        // What the first page needs is on its way while its place is found out.
        document.getPage(1).catch(() => undefined);
      },
      (error: unknown) => {
        if (!gone) setWrong(wordsOf(error));
      },
    );
    return () => {
      gone = true;
      setPdf(undefined);
      closePdf(address);
    };
  }, [address, password]);

  useEffect(() => {
    if (!page) return;
    setBoxes(
      [...page.adapter.document.querySelectorAll<HTMLElement>('section[data-avrelle-page]')].map((section, n) => {
        const { left, top, width, height } = section.getBoundingClientRect();
        return { number: n + 1, left, top, width, height };
      }),
    );
  }, [page, layout]);

  const near = boxes.filter(
    (box) => box.top < seen.top + (1 + AHEAD) * seen.height && box.top + box.height > seen.top - AHEAD * seen.height,
  );
  return (
    <div aria-hidden="true">
      {wrong && (
        <p className="p-6 text-brick">
          The pages cannot be drawn ({wrong}). Their text can be read all the same: choose Text above.
        </p>
      )}
      {near.map((box) => (
        <div
          key={box.number}
          className={`pointer-events-none absolute ${dark ? 'opacity-90' : ''}`}
          style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
        >
          {pdf && <Picture pdf={pdf} number={box.number} width={box.width} dark={dark} />}
        </div>
      ))}
    </div>
  );
}

/** Pages that only rush past are not drawn. */
const STAYS = 70;

const Picture = memo(function Picture({
  pdf,
  number,
  width,
  dark,
}: {
  pdf: PDFDocumentProxy;
  number: number;
  width: number;
  dark: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let gone = false;
    let task: { cancel(): void } | undefined;
    const draw = async (): Promise<void> => {
      const page = await pdf.getPage(number);
      if (gone) return;
      const rendering = startRendering(page, width);
      task = rendering.task;
      const picture = await withoutPaper(await rendering.picture(), dark);
      const node = canvas.current;
      if (gone || !node) return picture.close();
      node.width = picture.width;
      node.height = picture.height;
      node.getContext('bitmaprenderer')!.transferFromImageBitmap(picture);
      node.dataset.drawn = String(number);
    };
    const timer = setTimeout(() => void draw().catch(() => undefined), number === 1 ? 0 : STAYS);
    return () => {
      gone = true;
      clearTimeout(timer);
      task?.cancel();
    };
  }, [pdf, number, width, dark]);
  return <canvas ref={canvas} className="block h-full w-full" />;
});

/** Draws a page beside the screen: what is shown stays until the new picture is there. */
function startRendering(page: PDFPageProxy, width: number) {
  const natural = page.getViewport({ scale: 1 });
  const wanted = (width / natural.width) * Math.min(2, window.devicePixelRatio);
  const scale = Math.min(wanted, Math.sqrt(MOST_PIXELS / (natural.width * natural.height)));
  const viewport = page.getViewport({ scale });
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(viewport.width);
  canvas.height = Math.round(viewport.height);
  const task = page.render({ canvas, viewport });
  return {
    task,
    picture: async (): Promise<ImageBitmap> => {
      await task.promise;
      const picture = await createImageBitmap(canvas);
      page.cleanup();
      // Some browsers have little room for canvases, and let go of them late.
      canvas.width = 0;
      return picture;
    },
  };
}
