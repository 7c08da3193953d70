import type { Encoding } from '@avrelle/core/wire';

/** Bytes as they came, before anything is known of them. */
export interface Got {
  readonly bytes: Uint8Array;
  /** File name, or the last part of the address. */
  readonly name: string;
  /** As sent; '' for a file. */
  readonly contentType: string;
  /** Where it was fetched from, redirects followed; null for a file. */
  readonly address: string | null;
  /** What it is written in, as its reader says; before everything that it seems to be. */
  readonly encoding?: Encoding | undefined;
}
