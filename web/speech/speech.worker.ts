import wasm from 'espeak-ng/dist/espeak-ng.wasm?url';
import { NoVoice, synthesise, type Spoken } from './synthesise';

export interface Asked extends Spoken {
  readonly id: number;
}

/** The sound of what was asked for; or why there is none. */
export type Answered = { readonly id: number } & (
  { readonly wav: ArrayBuffer } | { readonly failed: 'language' | 'loading' }
);

/** Compiled once; each sentence begins with a memory of its own. */
const compiled = WebAssembly.compileStreaming(fetch(wasm));
compiled.catch(() => undefined);

const instantiateWasm = (imports: WebAssembly.Imports, done: (instance: WebAssembly.Instance) => void): object => {
  void compiled.then((module) => WebAssembly.instantiate(module, imports)).then(done);
  return {};
};

const answer = (told: Answered): void => postMessage(told, { transfer: 'wav' in told ? [told.wav] : [] });

async function soundOf(asked: Asked): Promise<Answered> {
  const { id } = asked;
  try {
    await compiled;
    return { id, wav: (await synthesise(asked, { instantiateWasm })).buffer };
  } catch (error) {
    return { id, failed: error instanceof NoVoice ? 'language' : 'loading' };
  }
}

addEventListener('message', ({ data }: MessageEvent<Asked>) => void soundOf(data).then(answer));
