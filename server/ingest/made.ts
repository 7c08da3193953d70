import type { SourceFacts, SourceKind } from '@avrelle/core/wire';
import type { AssetCollector } from './assets';
import type { Got } from './got';
import type { Loader } from './loader';
import type { Metadata } from './metadata';

/** The file a version was made of, kept beside it. */
export interface KeptFile {
  readonly bytes: Uint8Array;
  readonly mediaType: string;
}

interface Common {
  readonly kind: SourceKind;
  readonly meta?: Partial<Metadata>;
  readonly facts?: SourceFacts;
  readonly file?: KeptFile;
  /** By what its content is known again, where that is not its text or its file. */
  readonly identity?: string;
}

/** A page of somebody else's, still to be completed and made safe. */
export interface RawPage extends Common {
  readonly form: 'raw';
  readonly html: Uint8Array | string;
  readonly contentType?: string;
  /** What its relative addresses are relative to, where that is not its own address. */
  readonly base?: string;
  /** Whence its parts come; undefined where nothing may be fetched. */
  readonly loader?: Loader | undefined;
  /** The address it was saved from, where the file says so. */
  readonly address?: string;
}

/** A page of our own making: complete and safe. */
export interface ReadyPage extends Common {
  readonly form: 'ready';
  readonly body: string;
  readonly styles?: readonly { readonly css: string; readonly media: string }[];
  readonly collector: AssetCollector;
}

export type Made = RawPage | ReadyPage;

export interface Tools {
  /** The web, for what may be fetched. */
  readonly web: Loader | undefined;
  readonly progress: (step: string, share: number) => void;
  readonly password?: string | undefined;
  /** True where pictures of a letter may be asked for from strangers. */
  readonly remote?: boolean | undefined;
  /** The words of a recording, where they came as a file of their own. */
  readonly transcript?: { readonly name: string; readonly bytes: Uint8Array } | undefined;
}

export type Reader = (got: Got, tools: Tools) => Made | Promise<Made>;

/** A title from a file's name. */
export function titleOf(name: string): string {
  const words = name
    .replace(/\.[^.]+$/, '')
    .replace(/[_-]+/g, ' ')
    .trim();
  return words ? words[0]!.toUpperCase() + words.slice(1) : name;
}
