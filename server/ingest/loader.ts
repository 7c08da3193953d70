import { AppError } from '../errors';
import { decoded } from './decoded';

export interface Fetched {
  /** Where the redirects ended. */
  readonly address: string;
  /** The `Content-Type` header as sent, '' when there was none. */
  readonly contentType: string;
  readonly bytes: Uint8Array;
}

export interface FetchLimits {
  /** Of the decoded body. */
  readonly bytes: number;
  readonly milliseconds: number;
  readonly redirects: number;
  /** What holds instead for anything that says it is neither text nor HTML. */
  readonly file?: { readonly bytes: number; readonly milliseconds: number };
}

/** Whence a page's pictures, styles and fonts come: the web, or the files that came with it. */
export interface Loader {
  fetch(address: string, limits: FetchLimits, accept?: string): Promise<Fetched>;
}

export interface Part {
  readonly bytes: Uint8Array;
  readonly contentType: string;
}

/** Where the parts of a file stand that has no address: `https://file.invalid/PATH`. */
export const NOWHERE = 'https://file.invalid/';

const TYPES: Readonly<Record<string, string>> = {
  css: 'text/css',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  avif: 'image/avif',
  svg: 'image/svg+xml',
  bmp: 'image/bmp',
  ico: 'image/x-icon',
  woff: 'font/woff',
  woff2: 'font/woff2',
  ttf: 'font/ttf',
  otf: 'font/otf',
  html: 'text/html',
  htm: 'text/html',
  xhtml: 'application/xhtml+xml',
};

/** The type a file's ending says; '' for one we do not bring along. */
export const typeOfName = (name: string): string =>
  TYPES[/\.([a-z0-9]+)(?:[?#].*)?$/i.exec(name)?.[1]?.toLowerCase() ?? ''] ?? '';

/** Parts at hand, by address. Fragment and, where nothing else fits, query do not matter. */
export class PartLoader implements Loader {
  private readonly parts = new Map<string, Part>();

  constructor(parts: Iterable<readonly [address: string, part: Part]>) {
    for (const [address, part] of parts) this.parts.set(plain(address), part);
  }

  get(address: string): Part | undefined {
    return this.parts.get(plain(address)) ?? this.parts.get(plain(address).split('?')[0]!);
  }

  fetch(address: string): Promise<Fetched> {
    const part = this.get(address);
    return part
      ? Promise.resolve({ address, ...part })
      : Promise.reject(new AppError('page_missing', { address, status: 404 }));
  }
}

const plain = (address: string): string => decoded(address.split('#')[0]!);
