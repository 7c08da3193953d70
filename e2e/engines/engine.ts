import { PNG } from 'pngjs';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Rectangle extends Point {
  readonly width: number;
  readonly height: number;
}

/** What the tests ask of a browser, whatever drives it. Points and rectangles are in CSS pixels of the window. */
export interface Engine {
  readonly name: string;
  open(url: string): Promise<void>;
  /** The value of an expression in the page, which must be JSON. */
  value<T>(expression: string): Promise<T>;
  /** A press at a place, moved over others, released at the last; a click where there is but one. */
  drag(points: readonly Point[]): Promise<void>;
  /** A finger, where the engine can be driven by one. */
  readonly tap?: (at: Point) => Promise<void>;
  /** A named key of the keyboard (`Escape`, `Enter`) or a letter. */
  press(key: string, held?: 'Control'): Promise<void>;
  type(words: string): Promise<void>;
  picture(): Promise<PNG>;
  close(): Promise<void>;
}

/** Asks until an answer fits. The error tells the last answer. */
export async function until<T>(ask: () => Promise<T>, fits: (answer: T) => boolean, what: string): Promise<T> {
  const end = Date.now() + 20_000;
  for (;;) {
    const answer = await ask();
    if (fits(answer)) return answer;
    if (Date.now() > end) throw new Error(`${what}: ${JSON.stringify(answer)}`);
    await new Promise((next) => setTimeout(next, 50));
  }
}

/** Rejects where something does not come in time: a driver that hangs answers nothing at all. */
export async function within<T>(milliseconds: number, work: Promise<T>, what: string): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Error(`${what} took more than ${milliseconds} ms`)), milliseconds);
  });
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}

export const asPicture = (base64: string): PNG => PNG.sync.read(Buffer.from(base64, 'base64'));
