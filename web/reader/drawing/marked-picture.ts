import { isPin, type AreaSpot } from '@avrelle/core/anchor';
import type { Kind } from '@avrelle/core/legend';
import type { Box, PageAdapter } from '../../page/page-frame';
import { NIGHT_PAPER } from '../document/page-style';
import type { Thread } from '../model/thread';
import { areaBox, toneOn } from '../../page/spot-box';
import { inkPath } from './ink-path';
import { LINE_HEIGHT, type Laid } from './laid';
import { cssColour } from './tools';

interface Given {
  readonly adapter: PageAdapter;
  readonly on: AreaSpot['on'];
  /** In shares of it; all of it where nothing is said. */
  readonly region?: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly laid: readonly Laid[];
  readonly threads: readonly Thread[];
}

/** A picture or page of a PDF, or an area of it, with all that is marked on it, as PNG, as fine as it is at hand. Rejects, in words, where it is not drawn. */
export async function markedPicture({
  adapter,
  on,
  region = { x: 0, y: 0, width: 1, height: 1 },
  laid,
  threads,
}: Given): Promise<Blob> {
  const base = baseOf(adapter, on);
  const box = adapter.holder(on);
  if (!base || !box || base.width === 0)
    throw new Error('This is not drawn on the page just now. Scroll to it and try again.');
  const canvas = Object.assign(document.createElement('canvas'), {
    width: Math.max(1, Math.round(region.width * base.width)),
    height: Math.max(1, Math.round(region.height * base.height)),
  });
  const pen = canvas.getContext('2d')!;
  // The pages of a PDF are as the theme shows them; a picture is as it is.
  const paper = 'page' in on && document.documentElement.dataset.theme === 'night' ? NIGHT_PAPER : '#fff';
  pen.fillStyle = paper;
  pen.fillRect(0, 0, canvas.width, canvas.height);
  const scale = base.width / box.width;
  pen.setTransform(1, 0, 0, 1, -region.x * base.width, -region.y * base.height);
  pen.drawImage(base.picture, 0, 0, base.width, base.height);
  pen.scale(scale, scale);
  pen.translate(-box.left, -box.top);
  drawMarks(pen, { adapter, on, region, laid, threads });
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('This picture is too large for the browser.'))),
      'image/png',
    ),
  );
}

/** Areas and points, but for the one that is taken out, and what is drawn. */
function drawMarks(pen: CanvasRenderingContext2D, { adapter, on, region, laid, threads }: Required<Given>): void {
  const tone = toneOn(on);
  for (const { root } of threads) {
    const spot = root.anchor?.spot;
    if (spot?.type === 'area' && isSame(spot.on, on) && !isRegion(spot, region))
      outlineArea(pen, { kind: root.kind, box: areaBox(adapter, spot)!, pin: isPin(spot), tone });
  }
  for (const each of laid)
    if (each.spot.tied.to === 'picture' && isSame(each.spot.tied.on, on)) drawInk(pen, each, tone);
}

/** Hands a file to the person. */
export function download(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement('a'), { href: address, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

function baseOf(
  { document: page }: PageAdapter,
  on: AreaSpot['on'],
): { readonly picture: CanvasImageSource; readonly width: number; readonly height: number } | undefined {
  if ('page' in on) {
    const canvas = document.querySelector<HTMLCanvasElement>(`canvas[data-drawn="${on.page}"]`);
    return canvas ? { picture: canvas, width: canvas.width, height: canvas.height } : undefined;
  }
  const image = page.querySelector<HTMLImageElement>(`img[src$="${on.picture}"]`);
  return image ? { picture: image, width: image.naturalWidth, height: image.naturalHeight } : undefined;
}

const isSame = (a: AreaSpot['on'], b: AreaSpot['on']): boolean =>
  'page' in a ? 'page' in b && a.page === b.page : 'picture' in b && a.picture === b.picture;
const isRegion = (spot: AreaSpot, region: NonNullable<Given['region']>): boolean =>
  spot.x === region.x && spot.y === region.y && spot.width === region.width && spot.height === region.height;

/** A canvas knows no roles: the colour they stand for in a theme, or in that of the moment. */
function resolved(colour: string, tone: 'day' | undefined): string {
  const sample = document.body.appendChild(Object.assign(document.createElement('span'), { hidden: true }));
  if (tone) sample.dataset.theme = tone;
  sample.style.color = colour;
  const { color } = getComputedStyle(sample);
  sample.remove();
  return color;
}

function drawInk(
  pen: CanvasRenderingContext2D,
  { spot, strokes, width, lines, thread }: Laid,
  tone: 'day' | undefined,
): void {
  const colour = resolved(
    spot.tool === 'sign' ? cssColour(thread.root.kind.pigment) : cssColour(spot.colour, spot.tool),
    tone,
  );
  const at = strokes[0]?.[0];
  pen.save();
  pen.fillStyle = pen.strokeStyle = colour;
  if (lines.length && at) {
    pen.font = `${spot.tool === 'sign' ? 'bold ' : ''}${width}px ${spot.tool === 'sign' ? '"Atkinson Hyperlegible Next Variable", sans-serif' : '"Literata Variable", serif'}`;
    lines.forEach((line, n) => pen.fillText(line, at[0], at[1] + width * (0.92 + n * LINE_HEIGHT)));
  } else {
    const { d, filled } = inkPath(spot.tool, strokes, width);
    const path = new Path2D(d);
    if (spot.tool === 'broad') pen.globalCompositeOperation = 'multiply';
    pen.lineWidth = width;
    pen.lineCap = pen.lineJoin = 'round';
    if (filled) pen.fill(path);
    else pen.stroke(path);
  }
  pen.restore();
}

interface Outlined {
  readonly kind: Kind;
  readonly box: Box;
  readonly pin: boolean;
  readonly tone: 'day' | undefined;
}

function outlineArea(pen: CanvasRenderingContext2D, { kind, box, pin, tone }: Outlined): void {
  const { pigment, sign } = kind;
  const { left, top, width, height } = box;
  pen.save();
  pen.strokeStyle = pen.fillStyle = resolved(`var(--${pigment}-line)`, tone);
  pen.lineWidth = 2;
  pen.font = '600 13px "Literata Variable", serif';
  if (pin) {
    pen.beginPath();
    pen.arc(left, top, 11, 0, 2 * Math.PI);
    pen.stroke();
  } else pen.strokeRect(left, top, width, height);
  pen.fillText(sign, pin ? left - 4 : left + 5, pin ? top + 5 : top + 15);
  pen.restore();
}
