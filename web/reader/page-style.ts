import literata from '@fontsource-variable/literata/files/literata-latin-opsz-normal.woff2?url';
import literataItalic from '@fontsource-variable/literata/files/literata-latin-opsz-italic.woff2?url';
import literataExt from '@fontsource-variable/literata/files/literata-latin-ext-opsz-normal.woff2?url';
import literataGreek from '@fontsource-variable/literata/files/literata-greek-opsz-normal.woff2?url';
import literataCyrillic from '@fontsource-variable/literata/files/literata-cyrillic-opsz-normal.woff2?url';
import { ASIDE_ATTRIBUTE } from '@avrelle/core/text';

export type View = 'main' | 'kept';

/** Address, style, characters (as the font's package gives them), and what in a text asks for it. */
const faces: readonly (readonly [string, string, string, RegExp])[] = [
  [literata, 'normal', 'U+0-FF, U+131, U+152-153, U+2BB-2BC, U+2C6, U+2DA, U+2DC, U+2000-206F, U+20AC, U+2122, U+2191, U+2193, U+2212, U+2215', /./],
  [literataItalic, 'italic', 'U+0-FF, U+131, U+152-153, U+2BB-2BC, U+2C6, U+2DA, U+2DC, U+2000-206F, U+20AC, U+2122', /./],
  [literataExt, 'normal', 'U+100-130, U+132-151, U+154-2BA, U+1E00-1E9F', /[\u0100-\u0130\u0132-\u02ba\u1e00-\u1e9f]/],
  [literataGreek, 'normal', 'U+370-377, U+37A-37F, U+384-38A, U+38C, U+38E-3A1, U+3A3-3FF', /\p{Script=Greek}/u],
  [literataCyrillic, 'normal', 'U+301, U+400-45F, U+490-491, U+4B0-4B1, U+2116', /\p{Script=Cyrillic}/u],
];
/** Our typography for the main text: a printed page, its measure about 66 characters. Values of the theme come in as `v`. */
const mainText = (v: (token: string) => string): string => `
html{background:${v('--sheet')};overflow:hidden;height:auto!important}
body{all:unset;display:block;box-sizing:border-box;max-width:calc(600px + 72px + 24px);margin:0 auto 0 max(0px,calc((100% - 900px) / 2));padding:26px 24px 90px 72px;color:${v('--ink')};font:18px/30px "Literata Variable",Literata,Georgia,serif;font-optical-sizing:auto;overflow-wrap:break-word;hyphens:auto}
[${ASIDE_ATTRIBUTE}]{display:none!important}
body *{box-sizing:border-box;max-width:100%;color:inherit!important;background:none!important;position:static!important;float:none!important;transform:none!important;font-family:inherit!important}
h1,h2,h3,h4,h5,h6{font-weight:600;line-height:1.25;margin:30px 0 6px;hyphens:manual;text-wrap:balance}
h1{font-size:31px;line-height:36px;letter-spacing:-.01em;margin:0 0 16px} h2{font-size:21px;line-height:30px} h3{font-size:18px;line-height:30px;font-style:italic} h4,h5,h6{font-size:17px}
h1+.byline,h1+.by{font-size:15px;color:${v('--ink-soft')}!important;margin:-12px 0 20px}
p,ul,ol,dl,table,figure,blockquote,pre{margin:0 0 15px}
ul,ol{padding-left:1.4em} ul{list-style:disc} ol{list-style:decimal}
blockquote{border-left:2px solid ${v('--rule-strong')};padding-left:18px;margin-left:0;font-style:italic}
a{color:inherit;text-decoration:underline;text-decoration-color:${v('--rule-strong')};text-underline-offset:3px}
img,svg,video{max-width:100%;height:auto;display:block} figure{margin:24px 0} figcaption,caption{font-size:15px;line-height:22px;color:${v('--ink-soft')}!important;padding:8px 0;text-align:left}
table{border-collapse:collapse;font-size:15px;line-height:22px;border-top:1.5px solid ${v('--ink-soft')};border-bottom:1.5px solid ${v('--ink-soft')};width:100%;hyphens:manual} th,td{text-align:left;vertical-align:top;padding:4px 14px 4px 0;border-bottom:1px solid ${v('--rule')};border-width:0 0 1px} th{font-weight:600}
pre,code,kbd,samp{font-family:ui-monospace,monospace!important;font-size:.88em} pre{white-space:pre-wrap}
hr{border:0;border-top:1px solid ${v('--rule-strong')};margin:24px 0} br{line-height:30px}
@media(max-width:700px){body{padding:20px 18px 60px;font-size:17px;line-height:28px} h1{font-size:27px;line-height:32px} table{display:block;overflow-x:auto}}
`;

/** Shows the main text in our typography, or the page as it was kept. Works on style sheets alone. */
export class PageDress {
  private readonly sheet: CSSStyleSheet;

  constructor(private readonly document: Document, window: Window & typeof globalThis) {
    this.sheet = new window.CSSStyleSheet();
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, this.sheet];
  }

  apply(view: View, tokens: CSSStyleDeclaration): void {
    for (const sheet of this.document.styleSheets) if (sheet.ownerNode) sheet.disabled = view === 'main';
    this.sheet.replaceSync(view === 'main' ? mainText((token) => tokens.getPropertyValue(token)) : 'html{overflow-x:auto;overflow-y:hidden}');
  }
}

/**
 * Gives a frame's document our reading face. It is handed over as data, so the snapshot's policy needs no exception;
 * faces of scripts the text does not use are left out.
 */
export async function loadReadingFace(window: Window & typeof globalThis, text: string): Promise<void> {
  const wanted = faces.filter(([, , , script]) => script.test(text));
  await Promise.all(wanted.map(async ([url, style, unicodeRange]) => {
    const face = new window.FontFace('Literata Variable', await fontBytes(url), { style, weight: '200 900', unicodeRange });
    window.document.fonts.add(await face.load());
  }));
}

const fetched = new Map<string, Promise<ArrayBuffer>>();

function fontBytes(url: string): Promise<ArrayBuffer> {
  let bytes = fetched.get(url);
  if (!bytes) fetched.set(url, (bytes = fetch(url).then((response) => response.arrayBuffer())));
  return bytes;
}
