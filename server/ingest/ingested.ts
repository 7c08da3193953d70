import type { Inline, Outline } from '@avrelle/core/text';
import type { Amount, Encoding, SourceFacts, SourceKind } from '@avrelle/core/wire';
import type { Asset } from './assets';
import type { Got } from './got';
import type { KeptFile, Tools } from './made';
import type { Metadata } from './metadata';
import type { PartAtHand } from './page-fetch';

/** How much of a page is kept, and how. */
export interface Choices {
  readonly amount: Amount;
  readonly width?: number | null;
  /** Elements taken out, by their path in the snapshot (child indices from the root element, elements only). */
  readonly removed?: readonly string[];
  /** In the text stream; for the amount `passage`. */
  readonly passage?: { readonly start: number; readonly end: number } | null;
}

export type IngestInput =
  | {
      readonly type: 'address';
      readonly address: string;
      readonly choices?: Choices | undefined;
      /** One of many: what the site asks of programs is heeded. */ readonly polite?: boolean | undefined;
      /** What was fetched from there already. */ readonly got?: Got | undefined;
      readonly encoding?: Encoding | undefined;
      readonly parts?: Parts;
    }
  | ({ readonly type: 'file'; readonly name: string; readonly bytes: Uint8Array } & Pick<
      Tools,
      'password' | 'transcript' | 'remote'
    > & {
        /** What the text is written in, whatever it seems to be. */
        readonly encoding?: Encoding | undefined;
        readonly parts?: Parts;
      })
  | { readonly type: 'shape'; readonly ingested: Ingested; readonly choices: Choices };

/** What was fetched already of what a page shows with; nothing else is fetched then. */
type Parts = readonly PartAtHand[] | undefined;

/** A source made ready to be stored: nothing of it needs the network any more. */
export interface Ingested {
  readonly kind: SourceKind;
  readonly amount: Amount;
  /** HTML whose pictures, styles and fonts are named `asset/HASH`. */
  readonly snapshot: string;
  readonly assets: readonly Asset[];
  readonly text: string;
  readonly outline: Outline;
  readonly inlines: readonly Inline[];
  readonly minutes: number;
  /** Where it was fetched from, redirects followed; null for a file. */
  readonly address: string | null;
  readonly canonical: string | null;
  readonly meta: Metadata;
  /** Hash of the picture that stands for it, which is one of `assets`. */
  readonly lead: string | null;
  /** Addresses of pictures, styles and fonts that could not be loaded. */
  readonly missing: readonly string[];
  readonly facts: SourceFacts;
  readonly file: KeptFile | null;
  /** By what the same content is known again; '' where it is too little to tell. */
  readonly fingerprint: string;
  /** The viewport it was kept for, in CSS pixels; null for as wide as there is room. */
  readonly width: number | null;
  /** Its files where they are in the database already; snapshot, assets and file are then empty. */
  readonly stored?: StoredFiles | undefined;
}

/** Hashes of the files of a version. */
export interface StoredFiles {
  readonly snapshot: string;
  readonly assets: readonly string[];
  readonly file: string | null;
}

export type Progress = (step: string, share: number) => void;
