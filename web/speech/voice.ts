/** It has no voice for the language; or what speaks could not be loaded. */
export type Failure = 'language' | 'loading';

export interface Said {
  readonly text: string;
  /** What will probably be said after it. */
  readonly next: string;
  readonly rate: number;
  onEnd(): void;
  onFail(why: Failure): void;
}

export interface Voice {
  readonly name: string;
  /** To be called while a press is handled: some browsers make no sound before. */
  wake(): void;
  /** Gives what ends it; what was ended says nothing more. */
  speak(said: Said): () => void;
}
