import { createHash } from 'node:crypto';
import { decode, labelToName } from 'whatwg-encoding';
import { ASSET_LIMITS, type SafeFetcher } from './safe-fetch';
import { selfContainedCss, selfContainedDeclarations } from './stylesheets';

export interface Asset {
  readonly hash: string;
  readonly bytes: Uint8Array;
  readonly mediaType: string;
}

/** What a page may bring along in all; what lies beyond is left out and counted. */
const MOST_BYTES = 40 * 1024 * 1024;
const MOST_ASSETS = 400;
const AT_ONCE = 6;
const KEPT_TYPES = /^(image\/(png|jpeg|gif|webp|avif|svg\+xml|bmp|x-icon|vnd\.microsoft\.icon)|font\/(woff2?|ttf|otf|sfnt)|application\/(font-woff2?|x-font-woff|x-font-ttf|vnd\.ms-fontobject))$/;

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

  constructor(private readonly fetcher: SafeFetcher | undefined) {}

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
    return got && { css: decode(got.bytes, charsetOf(got.contentType)), address: got.address };
  };

  private async collect(absolute: string): Promise<string | undefined> {
    if (absolute.startsWith('data:')) return this.add(fromDataUrl(absolute));
    const got = await this.get(absolute, 'image/*,font/*,*/*;q=0.5');
    return got && this.add({ bytes: got.bytes, mediaType: got.contentType.split(';')[0]!.trim().toLowerCase() });
  }

  private add(found: { bytes: Uint8Array; mediaType: string } | undefined): string | undefined {
    if (!found || !KEPT_TYPES.test(found.mediaType) || this.byHash.size >= MOST_ASSETS || this.bytes + found.bytes.byteLength > MOST_BYTES) return undefined;
    const hash = createHash('sha256').update(found.bytes).digest('hex');
    if (!this.byHash.has(hash)) {
      this.byHash.set(hash, { hash, ...found });
      this.bytes += found.bytes.byteLength;
    }
    return assetName(hash);
  }

  private async get(absolute: string, accept: string): Promise<{ bytes: Uint8Array; contentType: string; address: string } | undefined> {
    if (!this.fetcher || !/^https?:/.test(absolute)) return undefined;
    await this.turn();
    try {
      return await this.fetcher.fetch(absolute, ASSET_LIMITS, accept);
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
    const bytes = /;base64/i.test(match[2]!) ? Buffer.from(decodeURIComponent(match[3]!), 'base64') : Buffer.from(decodeURIComponent(match[3]!), 'utf8');
    return { bytes, mediaType: (match[1] || 'text/plain').toLowerCase() };
  } catch {
    return undefined;
  }
}

const charsetOf = (contentType: string): string => labelToName(/charset=["']?([\w-]+)/i.exec(contentType)?.[1] ?? 'utf-8') ?? 'UTF-8';

/** Brings the page's pictures and styles inside. Returns its style sheets in order; the document no longer holds them. */
export async function makeSelfContained(document: Document, base: string, collector: AssetCollector): Promise<readonly { css: string; media: string }[]> {
  const [styles] = await Promise.all([takeStyles(document, base, collector), ...pictures(document, base, collector), ...styleAttributes(document, base, collector)]);
  return styles;
}

async function takeStyles(document: Document, base: string, collector: AssetCollector): Promise<{ css: string; media: string }[]> {
  const owners = [...document.querySelectorAll('style, link[rel~="stylesheet" i][href]')].filter((el) => !/\balternate\b/i.test(el.getAttribute('rel') ?? ''));
  const sheets = await Promise.all(owners.map(async (owner) => {
    const media = owner.getAttribute('media') ?? '';
    const href = owner.getAttribute('href') ?? '';
    const sheet = owner.nodeName === 'STYLE' ? { css: owner.textContent ?? '', address: base } : URL.canParse(href, base) ? await collector.loadSheet(new URL(href, base).href) : undefined;
    owner.remove();
    return sheet && { css: await selfContainedCss(sheet.css, sheet.address, collector.resolve, collector.loadSheet), media };
  }));
  return sheets.filter((sheet) => sheet !== undefined);
}

function pictures(document: Document, base: string, collector: AssetCollector): Promise<void>[] {
  return [...document.querySelectorAll('img, svg image')].map(async (picture) => {
    const chosen = chooseAddress(picture);
    const attribute = picture.nodeName.toLowerCase() === 'img' ? 'src' : 'href';
    for (const name of ['srcset', 'sizes', 'loading', 'data-src', 'data-srcset', 'xlink:href', 'src', 'href']) picture.removeAttribute(name);
    const inside = chosen && URL.canParse(chosen, base) ? await collector.resolve(new URL(chosen, base).href) : undefined;
    if (inside) picture.setAttribute(attribute, inside);
  });
}

const WIDEST = 1600;

/** Of the candidates a picture offers, the largest of reasonable width; lazy-loading attributes count as the address. */
function chooseAddress(picture: Element): string | undefined {
  const own = picture.getAttribute('data-src') ?? picture.getAttribute('src') ?? picture.getAttribute('href') ?? picture.getAttribute('xlink:href') ?? undefined;
  const sets = [picture, ...(picture.closest('picture')?.querySelectorAll('source') ?? [])].map((el) => el.getAttribute('data-srcset') ?? el.getAttribute('srcset')).filter((s) => s !== null);
  const offers = sets.flatMap(parseSrcset).filter((c) => c.width <= WIDEST).sort((a, b) => b.width - a.width);
  const placeholder = own === undefined || own.startsWith('data:');
  return placeholder || (offers[0]?.width ?? 0) > 0 ? (offers[0]?.address ?? own) : own;
}

/** HTML Standard, 4.8.4.2: addresses with an optional width (`640w`) or density (`2x`) descriptor. */
function parseSrcset(srcset: string): { address: string; width: number }[] {
  return [...srcset.matchAll(/(\S*[^,\s])(?:\s+([\d.]+)([wx]))?\s*(?:,|$)/g)].map(([, address, value, unit]) => ({ address: address!, width: unit === 'w' ? Number(value) : 0 }));
}

function styleAttributes(document: Document, base: string, collector: AssetCollector): Promise<void>[] {
  return [...document.querySelectorAll('[style*="url" i]')].map(async (element) => {
    element.setAttribute('style', await selfContainedDeclarations(element.getAttribute('style') ?? '', base, collector.resolve));
  });
}
