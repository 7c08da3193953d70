import type { Answered, Asked } from './speech.worker';
import type { Spoken } from './synthesise';
import type { Failure, Said } from './voice';

let sound: AudioContext | undefined;

/** While a press is handled: a browser that lets nothing sound by itself lets this sound from now on. */
export function wakeSound(): void {
  sound ??= new AudioContext();
  void sound.resume();
}

class Unspoken extends Error {
  constructor(readonly why: Failure) {
    super(why);
  }
}

interface Waiting {
  resolve(wav: ArrayBuffer): void;
  reject(error: Unspoken): void;
}

const waiting = new Map<number, Waiting>();
let worker: Worker | undefined;
let count = 0;

function startWorker(): Worker {
  const made = new Worker(new URL('./speech.worker.ts', import.meta.url), { type: 'module' });
  made.onmessage = ({ data }: MessageEvent<Answered>) => {
    if ('failed' in data) return fail(data.failed);
    waiting.get(data.id)?.resolve(data.wav);
    waiting.delete(data.id);
  };
  made.onerror = () => fail('loading');
  return made;
}

/** Whatever waits fails alike; the next that is asked for begins anew, so that what could not be loaded can be. */
function fail(why: Failure): void {
  worker?.terminate();
  worker = undefined;
  made.clear();
  for (const asked of waiting.values()) asked.reject(new Unspoken(why));
  waiting.clear();
}

/** What was made last, the sentence after the one that sounds among it. */
const made = new Map<string, Promise<ArrayBuffer>>();
const KEPT = 3;

function soundOf(spoken: Spoken): Promise<ArrayBuffer> {
  const key = `${spoken.language} ${spoken.rate} ${spoken.text}`;
  const known = made.get(key);
  if (known) return known;
  const asked = new Promise<ArrayBuffer>((resolve, reject) => {
    const id = (count += 1);
    waiting.set(id, { resolve, reject });
    worker ??= startWorker();
    worker.postMessage({ ...spoken, id } satisfies Asked);
  });
  made.set(key, asked);
  if (made.size > KEPT) made.delete(made.keys().next().value!);
  return asked;
}

/** Says a sentence with the voice that comes with Avrelle, and makes the next one ready. Gives what ends it. */
export function sayShipped({ text, next, rate, onEnd, onFail }: Said, language: string): () => void {
  let left = false;
  let source: AudioBufferSourceNode | undefined;
  const say = async (): Promise<void> => {
    const wav = await soundOf({ text, language, rate });
    if (next) soundOf({ text: next, language, rate }).catch(() => undefined);
    wakeSound();
    // Decoding takes the bytes away, which may be wanted again.
    const buffer = await sound!.decodeAudioData(wav.slice(0));
    if (left) return;
    source = new AudioBufferSourceNode(sound!, { buffer });
    source.onended = () => {
      if (!left) onEnd();
    };
    source.connect(sound!.destination);
    source.start();
  };
  say().catch((error: unknown) => {
    if (!left) onFail(error instanceof Unspoken ? error.why : 'loading');
  });
  return () => {
    left = true;
    source?.stop();
  };
}
