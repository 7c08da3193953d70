import createEspeak, { type EspeakOptions } from 'espeak-ng';

export interface Spoken {
  readonly text: string;
  /** BCP 47; English where none is given. */
  readonly language: string;
  /** 1 is the pace of eSpeak NG's manual, 175 words a minute. */
  readonly rate: number;
}

const WORDS_A_MINUTE = 175;
const FILE = 'spoken.wav';

/** eSpeak NG has no voice for a language. */
export class NoVoice extends Error {}

/**
 * Words as sound, by eSpeak NG: a WAV file of 16 bits, one channel. Runs in a worker: a sentence takes a quarter of a
 * second. Throws {@link NoVoice} for a language that it does not speak.
 */
export async function synthesise(
  { text, language, rate }: Spoken,
  compiled: Pick<EspeakOptions, 'instantiateWasm'> = {},
): Promise<Uint8Array<ArrayBuffer>> {
  const pace = String(Math.round(WORDS_A_MINUTE * rate));
  let complaint = '';
  const { FS } = await createEspeak({
    ...compiled,
    // What follows the two dashes is words, also where it begins with one.
    arguments: ['-v', language || 'en', '-s', pace, '-w', FILE, '--', text],
    print: () => undefined,
    printErr: (line) => (complaint ||= line),
  });
  try {
    return FS.readFile(FILE);
  } catch {
    throw new NoVoice(complaint || `eSpeak NG made no sound of “${text.slice(0, 40)}” in ${language}.`);
  }
}
