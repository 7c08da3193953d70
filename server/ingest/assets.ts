import { createHash } from 'node:crypto';
import { decode } from 'whatwg-encoding';
import { charsetOf } from './decode-text';
import type { Loader } from './loader';
import { ASSET_LIMITS } from './safe-fetch';
import { backgroundsAsStyle, noteEmbedded, showLazy, standAlone } from './page-parts';
import { mayLoad, selfContainedCss, selfContainedDeclarations } from './stylesheets';

export interface Asset {
  readonly hash: string;
  readonly bytes: Uint8Array;
  readonly mediaType: string;
}

/** What a page may bring along in all; what lies beyond is left out and counted. */
const MOST_BYTES = 40 * 1024 * 1024;
const MOST_ASSETS = 400;
const AT_ONCE = 6;
const KEPT_TYPES =
  /^(image\/(png|jpeg|gif|webp|avif|svg\+xml|bmp|x-icon|vnd\.microsoft\.icon)|font\/(woff2?|ttf|otf|sfnt)|application\/(font-woff2?|x-font-woff|x-font-ttf|vnd\.ms-fontobject))$/;

export const assetName = (hash: string): string => `asset/${hash}`;

/** Fetches what a page shows with, each address once, and names it inside the snapshot. */
export class AssetCollector {
  private readonly byAddress = new Map<string, Promise<string | undefined>>();
  private readonly byHash = new Map<string, Asset>();
  private readonly waiting: (() => void)[] = [];
  private running = 0;
  private bytes = 0;
  /** Addresses that could not be brought along. */
  readonly missing: string[] = [];

  constructor(private readonly loader: Loader | undefined) {}

  get assets(): readonly Asset[] {
    return [...this.byHash.values()];
  }

  readonly resolve = (absolute: string): Promise<string | undefined> => {
    let name = this.byAddress.get(absolute);
    if (!name) this.byAddress.set(absolute, (name = this.collect(absolute)));
    return name;
  };

  readonly loadSheet = async (absolute: string): Promise<{ css: string; address: string } | undefined> => {
    if (absolute.startsWith('data:')) {
      const sheet = fromDataUrl(absolute);
      return sheet && { css: Buffer.from(sheet.bytes).toString('utf8'), address: 'about:blank' };
    }
    const got = await this.get(absolute, 'text/css,*/*;q=0.1');
    return got && { css: decode(got.bytes, charsetOf(got.contentType) ?? 'UTF-8'), address: got.address };
  };

  /** A file of markup, as a document of its own. */
  readonly loadMarkup = async (absolute: string, like: Document): Promise<Document | undefined> => {
    const got = await this.get(absolute, 'image/svg+xml');
    const Parser = like.defaultView?.DOMParser;
    return got && Parser
      ? new Parser().parseFromString(Buffer.from(got.bytes).toString('utf8'), 'image/svg+xml')
      : undefined;
  };

  private async collect(absolute: string): Promise<string | undefined> {
    if (absolute.startsWith('data:')) return this.add(fromDataUrl(absolute));
    const got = await this.get(absolute, 'image/*,font/*,*/*;q=0.5');
    return got && this.add({ bytes: got.bytes, mediaType: got.contentType.split(';')[0]!.trim().toLowerCase() });
  }

  /** Adds bytes at hand. Undefined when they are of no kind a page shows, or beyond what one page may bring. */
  add(found: { bytes: Uint8Array; mediaType: string } | undefined): string | undefined {
    if (
      !found ||
      !KEPT_TYPES.test(found.mediaType) ||
      this.byHash.size >= MOST_ASSETS ||
      this.bytes + found.bytes.byteLength > MOST_BYTES
    )
      return undefined;
    const hash = createHash('sha256').update(found.bytes).digest('hex');
    if (!this.byHash.has(hash)) {
      this.byHash.set(hash, { hash, ...found });
      this.bytes += found.bytes.byteLength;
    }
    return assetName(hash);
  }

  private async get(
    absolute: string,
    accept: string,
  ): Promise<{ bytes: Uint8Array; contentType: string; address: string } | undefined> {
    if (!this.loader || !/^(https?|cid):/.test(absolute)) {
      if (/^(https?|cid):/.test(absolute)) this.missing.push(absolute);
      return undefined;
    }
    await this.turn();
    try {
      return await this.loader.fetch(absolute, ASSET_LIMITS, accept);
    } catch {
      this.missing.push(absolute);
      return undefined;
    } finally {
      this.running--;
      this.waiting.shift()?.();
    }
  }

  private async turn(): Promise<void> {
    while (this.running >= AT_ONCE) await new Promise<void>((go) => this.waiting.push(go));
    this.running++;
  }
}

function fromDataUrl(url: string): { bytes: Uint8Array; mediaType: string } | undefined {
  const match = /^data:([^,;]*)((?:;[^,;]*)*),(.*)$/s.exec(url);
  if (!match) return undefined;
  try {
    const bytes = /;base64/i.test(match[2]!)
      ? Buffer.from(decodeURIComponent(match[3]!), 'base64')
      : Buffer.from(decodeURIComponent(match[3]!), 'utf8');
    return { bytes, mediaType: (match[1] || 'text/plain').toLowerCase() };
  } catch {
    return undefined;
  }
}

/** Brings the page's pictures and styles inside. Returns its style sheets in order; the document no longer holds them. */
export async function makeSelfContained(
  document: Document,
  base: string,
  collector: AssetCollector,
): Promise<readonly { css: string; media: string }[]> {
  noteEmbedded(document, base);
  showLazy(document);
  backgroundsAsStyle(document);
  await standAlone(document, base, collector);
  const [styles] = await Promise.all([
    takeStyles(document, base, collector),
    ...pictures(document, base, collector),
    ...styleAttributes(document, base, collector),
  ]);
  return styles;
}

async function takeStyles(
  document: Document,
  base: string,
  collector: AssetCollector,
): Promise<{ css: string; media: string }[]> {
  const owners = [...document.querySelectorAll('style, link[rel~="stylesheet" i][href]')].filter(
    (el) => !/\balternate\b/i.test(el.getAttribute('rel') ?? ''),
  );
  const sheets = await Promise.all(
    owners.map(async (owner) => {
      const media = owner.getAttribute('media') ?? '';
      const href = owner.getAttribute('href') ?? '';
      const sheet =
        owner.nodeName.toLowerCase() === 'style'
          ? { css: owner.textContent ?? '', address: base }
          : URL.canParse(href, base)
            ? await collector.loadSheet(new URL(href, base).href)
            : undefined;
      owner.remove();
      return (
        sheet && {
          css: await selfContainedCss(sheet.css, sheet.address, collector.resolve, collector.loadSheet),
          media,
        }
      );
    }),
  );
  return sheets.filter((sheet) => sheet !== undefined);
}

function pictures(document: Document, base: string, collector: AssetCollector): Promise<void>[] {
  return [...document.querySelectorAll('img, svg image')].map(async (picture) => {
    const chosen = chooseAddress(picture);
    const attribute = picture.nodeName.toLowerCase() === 'img' ? 'src' : 'href';
    for (const name of ['srcset', 'sizes', 'loading', 'xlink:href', 'src', 'href']) picture.removeAttribute(name);
    const inside =
      chosen && URL.canParse(chosen, base) ? await collector.resolve(new URL(chosen, base).href) : undefined;
    if (inside) picture.setAttribute(attribute, inside);
  });
}

const WIDEST = 1600;

/** Of the candidates a picture offers, the largest of reasonable width; where there are widths in `media`, the desk's. */
function chooseAddress(picture: Element): string | undefined {
  const own =
    picture.getAttribute('src') ?? picture.getAttribute('href') ?? picture.getAttribute('xlink:href') ?? undefined;
  const sources = [...(picture.parentElement?.closest('picture')?.querySelectorAll('source') ?? [])].filter(fits);
  const sets = [...sources, picture].map((el) => el.getAttribute('srcset')).filter((set) => set !== null);
  const offers = (sets.length ? parseSrcset(sets[0]!) : [])
    .filter((offer) => offer.width <= WIDEST && offer.density <= 2)
    .sort((a, b) => b.width - a.width || b.density - a.density);
  const best = offers[0]?.address;
  return own === undefined || own.startsWith('data:') || sources.length > 0 || (offers[0]?.width ?? 0) > 0
    ? (best ?? own)
    : own;
}

/** A `source` that a browser of our day would take: of a type we keep, for a wide screen or any. */
function fits(source: Element): boolean {
  const type = source.getAttribute('type'),
    media = source.getAttribute('media') ?? '';
  const most = /max-width:\s*(\d+)px/.exec(media)?.[1];
  return (
    (type === null || KEPT_TYPES.test(type)) &&
    !(most && Number(most) < 1280) &&
    !/print|prefers-color-scheme:\s*dark/.test(media)
  );
}

/** HTML Standard, 4.8.4.2: addresses with an optional width (`640w`) or density (`2x`) descriptor. */
function parseSrcset(srcset: string): { address: string; width: number; density: number }[] {
  return [...srcset.matchAll(/(\S*[^,\s])(?:\s+([\d.]+)([wx]))?\s*(?:,|$)/g)].map(([, address, value, unit]) => ({
    address: address!,
    width: unit === 'w' ? Number(value) : 0,
    density: unit === 'x' ? Number(value) : 1,
  }));
}

/** The site's sign, by its name inside. */
export async function favicon(
  document: Document,
  base: string,
  collector: AssetCollector,
): Promise<string | undefined> {
  const href = document.querySelector('link[rel~="icon" i][href]')?.getAttribute('href');
  return href && URL.canParse(href, base) ? collector.resolve(new URL(href, base).href) : undefined;
}

function styleAttributes(document: Document, base: string, collector: AssetCollector): Promise<void>[] {
  return [...document.querySelectorAll('[style]')]
    .filter((element) => mayLoad(element.getAttribute('style') ?? ''))
    .map(async (element) => {
      element.setAttribute(
        'style',
        await selfContainedDeclarations(element.getAttribute('style') ?? '', base, collector.resolve),
      );
    });
}
