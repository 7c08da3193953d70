import { createHash } from 'node:crypto';
import pLimit from 'p-limit';
import { decode } from 'whatwg-encoding';
import { charsetOf } from './decode-text';
import type { Loader } from './loader';
import { ASSET_LIMITS } from './safe-fetch';
import { backgroundsAsStyle, noteEmbedded, showLazy, standAlone } from './page-parts';
import {
  closest,
  contentOf,
  fits,
  isOfSvg,
  removeAll,
  select,
  selectOne,
  type PageElement,
  type PageTree,
} from './page-tree';
import { parseXml } from './parse-xml';
import { mayLoad, selfContainedCss, selfContainedDeclarations } from './stylesheets';

export interface Asset {
  readonly hash: string;
  readonly bytes: Uint8Array;
  readonly mediaType: string;
}

/** What a page may bring along in all; what lies beyond is left out and counted. */
export const MOST_BYTES = 40 * 1024 * 1024;
const MOST_ASSETS = 400;
/** Parts that are fetched at a time. */
export const AT_ONCE = 6;
const KEPT_TYPES =
  /^(image\/(png|jpeg|gif|webp|avif|svg\+xml|bmp|x-icon|vnd\.microsoft\.icon)|font\/(woff2?|ttf|otf|sfnt)|application\/(font-woff2?|x-font-woff|x-font-ttf|vnd\.ms-fontobject))$/;

export const assetName = (hash: string): string => `asset/${hash}`;

/** Fetches what a page shows with, each address once, and names it inside the snapshot. */
export class AssetCollector {
  private readonly byAddress = new Map<string, Promise<string | undefined>>();
  private readonly byHash = new Map<string, Asset>();
  private readonly limit = pLimit(AT_ONCE);
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

  /** A drawing in a file of its own, as a tree. */
  readonly loadMarkup = async (absolute: string): Promise<PageTree | undefined> => {
    const got = await this.get(absolute, 'image/svg+xml');
    return got && parseXml(got.bytes);
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
    const { loader } = this;
    return this.limit(() => loader.fetch(absolute, ASSET_LIMITS, accept)).catch(() => {
      this.missing.push(absolute);
      return undefined;
    });
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

/** Brings the page's pictures and styles inside. Returns its style sheets in order; the tree no longer holds them. */
export async function makeSelfContained(
  tree: PageTree,
  base: string,
  collector: AssetCollector,
): Promise<readonly { css: string; media: string }[]> {
  noteEmbedded(tree, base);
  showLazy(tree);
  backgroundsAsStyle(tree);
  await standAlone(tree, base, collector);
  const [styles] = await Promise.all([
    takeStyles(tree, base, collector),
    ...pictures(tree, base, collector),
    ...styleAttributes(tree, base, collector),
  ]);
  return styles;
}

async function takeStyles(
  tree: PageTree,
  base: string,
  collector: AssetCollector,
): Promise<{ css: string; media: string }[]> {
  const owners = select(tree, 'style, link[rel~="stylesheet" i][href]').filter(
    ({ attribs }) => !/\balternate\b/i.test(attribs.rel ?? ''),
  );
  removeAll(owners);
  const sheets = await Promise.all(
    owners.map(async (owner) => {
      const { media = '', href = '' } = owner.attribs;
      const linked = owner.name !== 'style' && URL.canParse(href, base);
      const sheet = linked ? await collector.loadSheet(new URL(href, base).href) : ownSheet(owner, base);
      return (
        sheet && {
          css: await selfContainedCss(sheet.css, sheet.address, collector),
          media,
        }
      );
    }),
  );
  return sheets.filter((sheet) => sheet !== undefined);
}

function pictures(tree: PageTree, base: string, collector: AssetCollector): Promise<void>[] {
  return select(tree, 'img, svg image').map(async (picture) => {
    const chosen = chooseAddress(picture);
    const { attribs } = picture;
    for (const name of ['srcset', 'sizes', 'loading', 'xlink:href', 'src', 'href']) delete attribs[name];
    const inside =
      chosen && URL.canParse(chosen, base) ? await collector.resolve(new URL(chosen, base).href) : undefined;
    if (inside) attribs[isOfSvg(picture) ? 'href' : 'src'] = inside;
  });
}

const isPicture = fits('picture');

const WIDEST = 1600;

/** Of the candidates a picture offers, the largest of reasonable width; where there are widths in `media`, the desk's. */
function chooseAddress(picture: PageElement): string | undefined {
  const { src, href, srcset } = picture.attribs;
  const own = src ?? href ?? picture.attribs['xlink:href'];
  const around = closest(picture, isPicture);
  const sources = around ? select(around, 'source').filter(isFitting) : [];
  const sets = [...sources.map((source) => source.attribs.srcset), srcset].filter((set) => set !== undefined);
  const offers = (sets.length ? parseSrcset(sets[0]!) : [])
    .filter((offer) => offer.width <= WIDEST && offer.density <= 2)
    .sort((a, b) => b.width - a.width || b.density - a.density);
  const [best] = offers;
  if (!best) return own;
  const isStandIn = own === undefined || own.startsWith('data:');
  return isStandIn || sources.length > 0 || best.width > 0 ? best.address : own;
}

/** A `source` that a browser of our day would take: of a type we keep, for a wide screen or any. */
function isFitting({ attribs: { type, media = '' } }: PageElement): boolean {
  const most = /max-width:\s*(\d+)px/.exec(media)?.[1];
  return (
    (type === undefined || KEPT_TYPES.test(type)) &&
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
export async function favicon(tree: PageTree, base: string, collector: AssetCollector): Promise<string | undefined> {
  const href = selectOne(tree, 'link[rel~="icon" i][href]')?.attribs.href;
  return href && URL.canParse(href, base) ? collector.resolve(new URL(href, base).href) : undefined;
}

function styleAttributes(tree: PageTree, base: string, collector: AssetCollector): Promise<void>[] {
  return select(tree, '[style]')
    .filter(({ attribs }) => mayLoad(attribs.style!))
    .map(async ({ attribs }) => {
      attribs.style = await selfContainedDeclarations(attribs.style!, base, collector.resolve);
    });
}

const ownSheet = (owner: PageElement, base: string) =>
  owner.name === 'style' ? { css: contentOf(owner), address: base } : undefined;
