import { memo, useEffect, useRef, useState } from 'react';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { wordsOf } from '../../../data/api';
import { useTheme } from '../../../theme/use-theme';
import { useReader } from '../../session/reader-context';
import { useDocument } from '../document-context';
import { inkOnly } from './ink-only';
import { closePdf, openPdf } from './pdf-file';

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
        if (!gone) setPdf(document);
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
      const node = canvas.current;
      const natural = page.getViewport({ scale: 1 });
      if (gone || !node) return;
      const wanted = (width / natural.width) * Math.min(2, window.devicePixelRatio);
      const viewport = page.getViewport({
        scale: Math.min(wanted, Math.sqrt(MOST_PIXELS / (natural.width * natural.height))),
      });
      node.width = Math.round(viewport.width);
      node.height = Math.round(viewport.height);
      // A context of our own: the library's would have no clear pixels.
      const pen = node.getContext('2d', { willReadFrequently: true })!;
      const rendering = page.render({ canvas: null, canvasContext: pen, viewport });
      task = rendering;
      await rendering.promise;
      const picture = pen.getImageData(0, 0, node.width, node.height);
      inkOnly(picture.data, dark);
      pen.putImageData(picture, 0, 0);
      node.dataset.drawn = String(number);
      page.cleanup();
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
