import { inkOnly } from './ink-only';

/** A picture of a page that is to lose its paper; the one without it has the same number. */
export interface Drawn {
  readonly id: number;
  readonly bitmap: ImageBitmap;
  readonly dark: boolean;
}

let canvas: OffscreenCanvas | undefined;

addEventListener('message', ({ data: { id, bitmap, dark } }: MessageEvent<Drawn>) => {
  const { width, height } = bitmap;
  canvas ??= new OffscreenCanvas(width, height);
  // Also clears what it held before.
  Object.assign(canvas, { width, height });
  const pen = canvas.getContext('2d', { willReadFrequently: true })!;
  pen.drawImage(bitmap, 0, 0);
  bitmap.close();
  const picture = pen.getImageData(0, 0, width, height);
  inkOnly(picture.data, dark);
  pen.putImageData(picture, 0, 0);
  const clear = canvas.transferToImageBitmap();
  postMessage({ id, bitmap: clear, dark } satisfies Drawn, { transfer: [clear] });
});
