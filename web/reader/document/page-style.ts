import literata from '@fontsource-variable/literata/files/literata-latin-opsz-normal.woff2?url';
import literataItalic from '@fontsource-variable/literata/files/literata-latin-opsz-italic.woff2?url';
import literataExt from '@fontsource-variable/literata/files/literata-latin-ext-opsz-normal.woff2?url';
import literataGreek from '@fontsource-variable/literata/files/literata-greek-opsz-normal.woff2?url';
import atkinson from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url';
import literataCyrillic from '@fontsource-variable/literata/files/literata-cyrillic-opsz-normal.woff2?url';
import { ASIDE_ATTRIBUTE, HIDDEN_ATTRIBUTE } from '@avrelle/core/text';
import type { SourceKind } from '@avrelle/core/wire';
import type { View } from '../model/reader-state';
import { USUAL, type Type } from './type';

/** Address, style, characters (as the font's package gives them), and what in a text asks for it. */
const faces: readonly (readonly [string, string, string, RegExp])[] = [
  [
    literata,
    'normal',
    'U+0-FF, U+131, U+152-153, U+2BB-2BC, U+2C6, U+2DA, U+2DC, U+2000-206F, U+20AC, U+2122, U+2191, U+2193, U+2212, U+2215',
    /./,
  ],
  [
    literataItalic,
    'italic',
    'U+0-FF, U+131, U+152-153, U+2BB-2BC, U+2C6, U+2DA, U+2DC, U+2000-206F, U+20AC, U+2122',
    /./,
  ],
  [literataExt, 'normal', 'U+100-130, U+132-151, U+154-2BA, U+1E00-1E9F', /[\u0100-\u0130\u0132-\u02ba\u1e00-\u1e9f]/],
  [literataGreek, 'normal', 'U+370-377, U+37A-37F, U+384-38A, U+38C, U+38E-3A1, U+3A3-3FF', /\p{Script=Greek}/u],
  [literataCyrillic, 'normal', 'U+301, U+400-45F, U+490-491, U+4B0-4B1, U+2116', /\p{Script=Cyrillic}/u],
];
const FACE_STACKS: Readonly<Record<Type['face'], string>> = {
  literata: '"Literata Variable",Literata,Georgia,serif',
  atkinson: '"Atkinson Hyperlegible Next Variable",system-ui,sans-serif',
};

/** Where the page does not say its direction, each block has that of its own letters. */
const BLOCKS = 'p,li,dd,dt,h1,h2,h3,h4,h5,h6,td,th,figcaption,caption,pre';
const OF_ITS_OWN = `html:is(:not([dir]),[data-avrelle-dir]) :is(${BLOCKS}):not([dir],body[dir] *,body [dir] *){unicode-bidi:plaintext}`;

/** Our typography for the main text: a printed page, its measure about 66 characters. Values of the theme come in as `v`. */
const mainText = (v: (token: string) => string, { size, line, measure, face }: Type): string => `
html{background:${v('--sheet')};overflow:hidden;height:auto!important}
body{all:unset;display:block;box-sizing:border-box;max-width:${measure + 72 + 24}px;margin:0 auto 0 max(0px,calc((100% - ${measure + 300}px) / 2));padding-block:26px 90px;padding-inline:72px 24px;color:${v('--ink')};font:${size}px/${line} ${FACE_STACKS[face]};font-optical-sizing:auto;overflow-wrap:break-word;hyphens:auto}
[${ASIDE_ATTRIBUTE}],[${HIDDEN_ATTRIBUTE}]{display:none!important}
${OF_ITS_OWN}
body *{box-sizing:border-box;max-width:100%;color:inherit!important;background:none!important;position:static!important;float:none!important;transform:none!important;font-family:inherit!important}
h1,h2,h3,h4,h5,h6{font-weight:600;line-height:1.25;margin:30px 0 6px;hyphens:manual;text-wrap:balance}
h1{font-size:1.72em;line-height:1.16;letter-spacing:-.01em;margin:0 0 16px} h2{font-size:1.17em} h3{font-size:1em;font-style:italic} h4,h5,h6{font-size:.95em}
h1+.byline,h1+.by{font-size:15px;color:${v('--ink-soft')}!important;margin:-12px 0 20px}
p,ul,ol,dl,table,figure,blockquote,pre{margin:0 0 15px}
ul,ol{padding-inline-start:1.4em} ul{list-style:disc} ol{list-style:decimal}
blockquote{border-inline-start:2px solid ${v('--rule-strong')};padding-inline-start:18px;margin-inline-start:0;font-style:italic}
a{color:inherit;text-decoration:underline;text-decoration-color:${v('--strand')};text-underline-offset:3px}
img,svg,video{max-width:100%;height:auto;display:block} img:not([src]){display:none} figure{margin:24px 0} figcaption,caption{font-size:15px;line-height:22px;color:${v('--ink-soft')}!important;padding:8px 0;text-align:start}
table{border-collapse:collapse;font-size:.84em;line-height:1.47;border-top:1.5px solid ${v('--ink-soft')};border-bottom:1.5px solid ${v('--ink-soft')};width:100%;hyphens:manual} th,td{text-align:start;vertical-align:top;padding-block:4px;padding-inline:0 14px;border-bottom:1px solid ${v('--rule')};border-width:0 0 1px} th{font-weight:600}
pre,code,kbd,samp{font-family:ui-monospace,monospace!important;font-size:.88em} pre{white-space:pre-wrap}
hr{border:0;border-top:1px solid ${v('--rule-strong')};margin:24px 0} br{line-height:inherit}
.no-text{color:${v('--ink-soft')}!important;font-style:italic}
section[data-avrelle-page]{position:relative!important;margin-bottom:8px} section[data-avrelle-page]::before{content:"p. " attr(data-avrelle-label);position:absolute;inset-inline-start:-56px;top:3px;font:13px/20px "Literata Variable",Georgia,serif;color:${v('--ink-faint')}}
section[data-avrelle-file]+section[data-avrelle-file]{margin-top:60px}
p[data-avrelle-clock]{position:relative!important;margin-bottom:9px} p[data-avrelle-clock]::before{content:attr(data-avrelle-clock);position:absolute;inset-inline-start:-58px;width:46px;text-align:end;font:13px/30px "Literata Variable",Georgia,serif;color:${v('--tide')};cursor:pointer}
.post{border-top:1px solid ${v('--rule')};padding-top:12px} .post .byline{margin:0 0 4px;font-size:15px;color:${v('--ink-soft')}!important}
@media(max-width:700px){section[data-avrelle-page]::before,p[data-avrelle-clock]::before{position:static;display:block;text-align:start}body{padding:20px 18px 60px;font-size:${size - 1}px} h1{font-size:1.6em} table{display:block;overflow-x:auto}}
`;

/** The paper of a PDF's pages by night. */
export const NIGHT_PAPER = '#10181a';

/** A page of a PDF: its words are clear, the picture that lies over them tints with what is marked. `unit` is one point in pixels. */
const overPicture = (unit: number, dark: boolean, ground: string, edge: string): string =>
  `:root{--u:${unit}px}html{overflow:hidden;background:${ground}}body{margin:0;padding:16px 0 40px}section[data-avrelle-page]{color:transparent;background:${dark ? NIGHT_PAPER : '#fff'};outline:1px solid ${edge}}section[data-avrelle-page] ::selection{color:transparent;background:${dark ? 'rgb(60 110 112)' : 'rgb(180 210 208)'}}section[data-avrelle-page] p.no-text{display:block;top:auto}`;

export interface Dressing {
  readonly view: View;
  readonly kind: SourceKind;
  /** Pixels to a point, for a PDF. */
  readonly unit: number;
  readonly type?: Type;
}

/** Pages whose letters one sees are a picture's. */
export const isOverPicture = ({ view, kind }: Pick<Dressing, 'view' | 'kind'>): boolean =>
  kind === 'pdf' && view === 'kept';

/** Shows the main text in our typography, or the page as it was kept. Works on style sheets alone. */
export class PageDress {
  private readonly sheet: CSSStyleSheet;

  constructor(
    private readonly document: Document,
    window: Window & typeof globalThis,
  ) {
    this.sheet = new window.CSSStyleSheet();
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, this.sheet];
  }

  apply({ view, kind, unit, type = USUAL }: Dressing, tokens: CSSStyleDeclaration): void {
    // A book's own styles were held to what its text needs when it was kept.
    for (const sheet of this.document.styleSheets)
      if (sheet.ownerNode) sheet.disabled = view === 'main' && kind !== 'book';
    const kept =
      kind === 'pdf'
        ? overPicture(
            unit,
            tokens.colorScheme === 'dark',
            tokens.getPropertyValue('--sheet'),
            tokens.getPropertyValue('--rule-strong'),
          )
        : 'html{overflow-x:auto;overflow-y:hidden}';
    this.sheet.replaceSync(view === 'main' ? mainText((token) => tokens.getPropertyValue(token), type) : kept);
  }
}

/**
 * Gives a frame's document our reading face. It is handed over as data, so the snapshot's policy needs no exception;
 * faces of scripts the text does not use are left out.
 */
export async function loadReadingFace(
  window: Window & typeof globalThis,
  text: string,
  face: Type['face'] = 'literata',
): Promise<void> {
  if (face === 'atkinson') return loadFace(window, 'Atkinson Hyperlegible Next Variable', atkinson, {});
  const wanted = faces.filter(([, , , script]) => script.test(text));
  await Promise.all(
    wanted.map(async ([url, style, unicodeRange]) => {
      await loadFace(window, 'Literata Variable', url, { style, weight: '200 900', unicodeRange });
    }),
  );
}

/** Begins to fetch what most texts are set in, so that it is there when the page is. */
export const fetchFaces = (): void => {
  for (const [url] of faces.slice(0, 2)) void fontBytes(url).catch(() => undefined);
};

async function loadFace(
  window: Window & typeof globalThis,
  family: string,
  url: string,
  about: FontFaceDescriptors,
): Promise<void> {
  const face = new window.FontFace(family, await fontBytes(url), about);
  window.document.fonts.add(await face.load());
}

const fetched = new Map<string, Promise<ArrayBuffer>>();

function fontBytes(url: string): Promise<ArrayBuffer> {
  let bytes = fetched.get(url);
  if (!bytes) fetched.set(url, (bytes = fetch(url).then((response) => response.arrayBuffer())));
  return bytes;
}
