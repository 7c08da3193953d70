/** What commands ask of the recording that is played. */
export interface PlayerHandle {
  playFrom(seconds: number): void;
  toggle(): void;
  back(): void;
  /** A note at this moment. */
  mark(): void;
  /** Begins a stretch, or ends it with a note. */
  stretch(): void;
}
