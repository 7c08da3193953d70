import { useCallback, useEffect, useRef, useState } from 'react';
import { useLatest } from '../../ui/use-latest';
import type { StreamRange } from '../../page/page-frame';

export interface Listening {
  /** True from beginning to end, also while it pauses. */
  readonly on: boolean;
  readonly paused: boolean;
  /** Undefined while the browser has not told; none where it cannot speak the language. */
  readonly voices: readonly SpeechSynthesisVoice[] | undefined;
  readonly rate: number;
  readonly voice: SpeechSynthesisVoice | undefined;
  begin(from: number): void;
  end(): void;
  pause(): void;
  /** To the sentence after or before the one that is read. */
  go(direction: 1 | -1): void;
  setRate(rate: number): void;
  setVoice(name: string): void;
}

export const RATES = [0.8, 1, 1.2, 1.5, 2] as const;
const synth = (): SpeechSynthesis | undefined => (typeof window === 'undefined' ? undefined : window.speechSynthesis);

/** Voices of the browser for a language, its own region first. */
function useVoices(language: string): readonly SpeechSynthesisVoice[] | undefined {
  const [voices, setVoices] = useState<readonly SpeechSynthesisVoice[]>();
  useEffect(() => {
    const speech = synth();
    if (!speech) return;
    const read = (): void => {
      const all = speech.getVoices();
      if (all.length > 0) setVoices(all);
    };
    read();
    // Some browsers tell them late; one that has none never does.
    const none = setTimeout(() => setVoices((known) => known ?? []), 1_500);
    speech.addEventListener?.('voiceschanged', read);
    return () => {
      clearTimeout(none);
      speech.removeEventListener?.('voiceschanged', read);
    };
  }, []);
  if (!synth()) return [];
  const wanted = (language || 'en').toLowerCase();
  const base = wanted.split('-')[0]!;
  return voices
    ?.filter((v) => v.lang.toLowerCase().replace('_', '-').split('-')[0] === base)
    .sort((a, b) => Number(b.lang.toLowerCase() === wanted) - Number(a.lang.toLowerCase() === wanted));
}

/** Tells which sentence is read. What is painted while nothing is read here is somebody else's: the line a recording speaks, for one. */
function useTold(sentence: StreamRange | undefined, onSentence: (sentence: StreamRange | undefined) => void): void {
  const latest = useLatest(onSentence);
  const tell = useCallback((now: StreamRange | undefined) => latest.current(now), [latest]);
  useEffect(() => {
    if (!sentence) return;
    tell(sentence);
    return () => tell(undefined);
  }, [sentence, tell]);
}

interface Speech {
  readonly sentence: StreamRange | undefined;
  readonly text: string;
  readonly language: string;
  readonly rate: number;
  readonly voice: SpeechSynthesisVoice | undefined;
  onEnd(): void;
}

/** Speaks one sentence; one that is left before its end has not ended. */
function useSpeech({ sentence, text, language, rate, voice, onEnd }: Speech): void {
  useEffect(() => {
    const speech = synth();
    if (!speech || !sentence) return;
    const said = new SpeechSynthesisUtterance(text.slice(sentence.start, sentence.end));
    said.lang = voice?.lang ?? language;
    said.rate = rate;
    if (voice) said.voice = voice;
    let left = false;
    said.onend = () => {
      if (!left) onEnd();
    };
    speech.speak(said);
    return () => {
      left = true;
      speech.cancel();
    };
  }, [sentence, rate, voice, text, language, onEnd]);
}

/** Reads sentences aloud with the browser's own speech, one after the other, telling which. */
export function useListening({
  text,
  sentences,
  language,
  onSentence,
}: {
  text: string;
  sentences: () => readonly StreamRange[];
  language: string;
  onSentence: (sentence: StreamRange | undefined) => void;
}): Listening {
  const voices = useVoices(language);
  const [at, setAt] = useState<number>();
  const [paused, setPaused] = useState(false);
  const [rate, setRate] = useState(1);
  const [name, setVoice] = useState('');
  const voice = voices?.find((v) => v.name === name) ?? voices?.[0];
  const all = useRef<readonly StreamRange[]>([]);
  const spoken = at === undefined || voices?.length === 0 ? undefined : at;
  const onEnd = useCallback(
    () => setAt((now) => (now === undefined || now + 1 >= all.current.length ? undefined : now + 1)),
    [],
  );
  const sentence = spoken === undefined ? undefined : all.current[spoken];
  useTold(sentence, onSentence);
  useSpeech({ sentence: paused ? undefined : sentence, text, language, rate, voice, onEnd });

  const begin = useCallback(
    (from: number) => {
      all.current = sentences();
      const first = all.current.findIndex((s) => s.end > from);
      setPaused(false);
      setAt(first < 0 ? undefined : first);
    },
    [sentences],
  );
  return {
    on: at !== undefined,
    paused,
    voices,
    voice,
    rate,
    begin,
    setRate,
    setVoice,
    end: useCallback(() => setAt(undefined), []),
    pause: useCallback(() => setPaused((was) => !was), []),
    go: useCallback(
      (direction) =>
        setAt((now) => (now === undefined ? now : Math.min(all.current.length - 1, Math.max(0, now + direction)))),
      [],
    ),
  };
}
