import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { shippedVoice, voicesFor } from '../../speech/voices';
import type { Failure, Voice } from '../../speech/voice';
import { useLatest } from '../../ui/use-latest';
import type { StreamRange } from '../../page/page-frame';

export interface Listening {
  /** True from beginning to end, also while it pauses. */
  readonly on: boolean;
  readonly paused: boolean;
  /** Undefined while the browser has not told; ours alone where it cannot speak the language. */
  readonly voices: readonly Voice[] | undefined;
  readonly rate: number;
  readonly voice: Voice | undefined;
  /** Why nothing is to be heard. */
  readonly failed: Failure | undefined;
  begin(from: number): void;
  end(): void;
  pause(): void;
  /** To the sentence after or before the one that is read. */
  go(direction: 1 | -1): void;
  setRate(rate: number): void;
  setVoice(name: string): void;
}

export const RATES = [0.8, 1, 1.2, 1.5, 2] as const;

/** Voices for a language: the browser's; where it has none, the one that comes with Avrelle. */
function useVoices(language: string): readonly Voice[] | undefined {
  const [own, setOwn] = useState<readonly SpeechSynthesisVoice[] | undefined>(() => (hasSpeech() ? undefined : []));
  useEffect(() => {
    if (!hasSpeech()) return;
    const read = (): void => {
      const all = speechSynthesis.getVoices();
      if (all.length > 0) setOwn(all);
    };
    read();
    // Some browsers tell them late; one that has none never does.
    const none = setTimeout(() => setOwn((known) => known ?? []), 1_500);
    speechSynthesis.addEventListener?.('voiceschanged', read);
    return () => {
      clearTimeout(none);
      speechSynthesis.removeEventListener?.('voiceschanged', read);
    };
  }, []);
  return useMemo(() => {
    if (!own) return undefined;
    const fitting = voicesFor(language, own);
    return fitting.length > 0 ? fitting : [shippedVoice(language)];
  }, [own, language]);
}

const hasSpeech = (): boolean => typeof speechSynthesis !== 'undefined';

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
  readonly next: StreamRange | undefined;
  readonly text: string;
  readonly rate: number;
  readonly voice: Voice | undefined;
  onEnd(): void;
  onFail(why: Failure): void;
}

/** Speaks one sentence; one that is left before its end has not ended. */
function useSpeech({ sentence, next, text, rate, voice, onEnd, onFail }: Speech): void {
  useEffect(() => {
    if (!sentence || !voice) return;
    const words = (range: StreamRange | undefined): string => (range ? text.slice(range.start, range.end) : '');
    return voice.speak({ text: words(sentence), next: words(next), rate, onEnd, onFail });
  }, [sentence, next, rate, voice, text, onEnd, onFail]);
}

/** Reads sentences aloud one after the other, telling which. */
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
  const [failed, setFailed] = useState<Failure>();
  const spoken = failed ? undefined : at;
  const onEnd = useCallback(
    () => setAt((now) => (now === undefined || now + 1 >= all.current.length ? undefined : now + 1)),
    [],
  );
  const sentence = spoken === undefined ? undefined : all.current[spoken];
  const next = spoken === undefined ? undefined : all.current[spoken + 1];
  useTold(sentence, onSentence);
  useSpeech({ sentence: paused ? undefined : sentence, next, text, rate, voice, onEnd, onFail: setFailed });

  const begin = useCallback(
    (from: number) => {
      voice?.wake();
      setFailed(undefined);
      all.current = sentences();
      const first = all.current.findIndex((s) => s.end > from);
      setPaused(false);
      setAt(first < 0 ? undefined : first);
    },
    [sentences, voice],
  );
  return {
    on: at !== undefined,
    paused,
    voices,
    voice,
    failed,
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
