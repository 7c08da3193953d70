import { expect, test } from '@jest/globals';
import { NoVoice, synthesise, type Spoken } from './synthesise';

/** Of a WAV file (RIFF, 44 bytes before the samples): seconds, and how loud it is, 0 to 1. */
async function soundOf(spoken: Spoken) {
  const wav = await synthesise(spoken);
  const view = new DataView(wav.buffer, wav.byteOffset);
  const samples = new Int16Array(wav.buffer.slice(44, wav.length - (wav.length % 2)));
  const loudness = Math.sqrt(samples.reduce((sum, s) => sum + s * s, 0) / samples.length) / 32_768;
  return { seconds: samples.length / view.getUint32(24, true), loudness };
}

const TIDE = 'The sea here has been rising by a little under four millimetres a year.';

test('a sentence becomes sound about as long as it takes to say it; twice the pace takes about half as long', async () => {
  const even = await soundOf({ text: TIDE, language: 'en-GB', rate: 1 });
  // 14 words at 175 a minute are 4.8 s.
  expect(even.seconds).toBeGreaterThan(3);
  expect(even.seconds).toBeLessThan(6);
  expect(even.loudness).toBeGreaterThan(0.01);
  const quick = await soundOf({ text: TIDE, language: 'en-GB', rate: 2 });
  expect(quick.seconds / even.seconds).toBeGreaterThan(0.4);
  expect(quick.seconds / even.seconds).toBeLessThan(0.65);
});

test.each([
  ['de', 'Die Flut kommt am Abend.'],
  ['ar', 'المد يرتفع'],
  ['el', 'Η θάλασσα ανεβαίνει.'],
  ['', 'No language is said.'],
  ['en', '-v is how a list begins'],
])('it speaks %p: %s', async (language, text) => {
  const { seconds, loudness } = await soundOf({ text, language, rate: 1 });
  expect(seconds).toBeGreaterThan(0.4);
  expect(loudness).toBeGreaterThan(0.01);
});

test('a language that it does not speak is said to be none', async () => {
  await expect(synthesise({ text: 'זײַ', language: 'yi', rate: 1 })).rejects.toThrow(NoVoice);
});
