import type { Drawn } from './ink.worker';

let count = 0;
const waiting = new Map<number, (bitmap: ImageBitmap) => void>();

function startWorker(): Worker {
  const started = new Worker(new URL('./ink.worker.ts', import.meta.url), { type: 'module' });
  started.onmessage = ({ data: { id, bitmap } }: MessageEvent<Drawn>) => {
    waiting.get(id)?.(bitmap);
    waiting.delete(id);
  };
  return started;
}

/** Begins with the code, while the file is on its way. */
const worker = startWorker();

/** The picture of a page without its paper (see `inkOnly`), worked out beside the screen. Takes what it is given. */
export function withoutPaper(bitmap: ImageBitmap, dark: boolean): Promise<ImageBitmap> {
  const id = (count += 1);
  const done = new Promise<ImageBitmap>((resolve) => waiting.set(id, resolve));
  worker.postMessage({ id, bitmap, dark } satisfies Drawn, [bitmap]);
  return done;
}
