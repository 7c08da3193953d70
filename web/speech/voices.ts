import { sayShipped, wakeSound } from './shipped-voice';
import type { Voice } from './voice';

/** A voice of the browser (Web Speech API). */
export const browserVoice = (voice: SpeechSynthesisVoice): Voice => ({
  name: voice.name,
  wake: () => undefined,
  speak: ({ text, rate, onEnd }) => {
    const said = new SpeechSynthesisUtterance(text);
    said.lang = voice.lang;
    said.rate = rate;
    said.voice = voice;
    let left = false;
    said.onend = () => {
      if (!left) onEnd();
    };
    speechSynthesis.speak(said);
    return () => {
      left = true;
      speechSynthesis.cancel();
    };
  },
});

/** The voice that comes with Avrelle, for browsers that have none of their own for a language. */
export const shippedVoice = (language: string): Voice => ({
  name: 'Avrelle',
  wake: wakeSound,
  speak: (said) => sayShipped(said, language),
});

/** The browser's voices for a language, those of its own region first. */
export function voicesFor(language: string, all: readonly SpeechSynthesisVoice[]): readonly Voice[] {
  const wanted = (language || 'en').toLowerCase();
  const base = wanted.split('-')[0]!;
  const tag = (voice: SpeechSynthesisVoice): string => voice.lang.toLowerCase().replace('_', '-');
  return all
    .filter((voice) => tag(voice).split('-')[0] === base)
    .sort((a, b) => Number(tag(b) === wanted) - Number(tag(a) === wanted))
    .map(browserVoice);
}
