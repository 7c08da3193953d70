import * as csstree from 'css-tree';

/** Gives what an address in a style sheet becomes: a name inside the snapshot, or undefined to leave it out. */
export type ResolveUrl = (absolute: string) => Promise<string | undefined>;
type LoadSheet = (absolute: string) => Promise<{ readonly css: string; readonly address: string } | undefined>;

/** What a style sheet names. */
export interface Outside {
  readonly resolve: ResolveUrl;
  readonly loadSheet: LoadSheet;
}

const DEEPEST_IMPORT = 5;

/**
 * A style sheet that needs nothing from outside: `@import` is replaced by what it names, every `url()` by what
 * `resolve` gives, or by nothing.
 */
export async function selfContainedCss(css: string, base: string, outside: Outside, depth = 0): Promise<string> {
  const tree = csstree.parse(plainEscapes(css), {
    context: 'stylesheet',
    parseValue: true,
    parseCustomProperty: true,
    onParseError: () => undefined,
  });
  dropUnread(tree);
  const imported = await takeImports(tree, base, outside, depth);
  await replaceUrls(tree, base, outside.resolve);
  return safeInStyleElement([...imported, csstree.generate(tree)].join('\n'));
}

/** The same for the declarations of one `style` attribute. */
export async function selfContainedDeclarations(css: string, base: string, resolve: ResolveUrl): Promise<string> {
  const tree = csstree.parse(plainEscapes(css), {
    context: 'declarationList',
    parseCustomProperty: true,
    onParseError: () => undefined,
  });
  dropUnread(tree);
  // A style attribute has declarations alone (CSS Style Attributes, 3).
  if (tree.type === 'DeclarationList') tree.children = tree.children.filter((node) => node.type !== 'Atrule');
  await replaceUrls(tree, base, resolve);
  return csstree.generate(tree);
}

/** Letters that are written as escapes (CSS Syntax 4.3.7) mean the same as themselves: `u\\72l(` loads, and would not be seen. */
export const plainEscapes = (css: string): string =>
  css.replace(
    /\\(?:([0-9a-f]{1,6})(?:\r\n|[ \t\r\n\f])?|([g-z]))/gi,
    (whole, hex: string | undefined, letter: string | undefined) => {
      const sign = letter ?? String.fromCodePoint(Math.min(0x10ffff, parseInt(hex!, 16)));
      return /^[a-z@(]$/i.test(sign) ? sign : whole;
    },
  );

const LOADS = /url\s*\(|image-set\s*\(|src\s*\(|@import/i;
/** Whether declarations hold anything that could be fetched. */
export const mayLoad = (css: string): boolean => LOADS.test(plainEscapes(css));

/** What the parser could not take apart stays as it is written: not where that may load something. */
function dropUnread(tree: csstree.CssNode): void {
  csstree.walk(tree, {
    visit: 'Raw',
    enter(node, item, list) {
      if (LOADS.test(node.value)) {
        if (list) list.remove(item);
        else node.value = '';
      }
    },
  });
}

async function takeImports(tree: csstree.CssNode, base: string, outside: Outside, depth: number): Promise<string[]> {
  const wanted: { href: string; media: string }[] = [];
  csstree.walk(tree, {
    visit: 'Atrule',
    enter(node, item, list) {
      if (node.name.toLowerCase() === 'charset') list?.remove(item);
      if (node.name.toLowerCase() !== 'import') return;
      const [first, ...rest] = node.prelude?.type === 'AtrulePrelude' ? node.prelude.children.toArray() : [];
      const media = rest.map((n) => csstree.generate(n)).join(' ');
      if (first?.type === 'Url' || first?.type === 'String') wanted.push({ href: first.value, media: media.trim() });
      list?.remove(item);
    },
  });
  if (depth >= DEEPEST_IMPORT) return [];
  const sheets: string[] = [];
  for (const { href, media } of wanted) {
    const sheet = URL.canParse(href, base) ? await outside.loadSheet(new URL(href, base).href) : undefined;
    if (!sheet) continue;
    const inner = await selfContainedCss(sheet.css, sheet.address, outside, depth + 1);
    sheets.push(media ? `@media ${media}{${inner}}` : inner);
  }
  return sheets;
}

async function replaceUrls(tree: csstree.CssNode, base: string, resolve: ResolveUrl): Promise<void> {
  const urls: csstree.Url[] = [];
  csstree.walk(tree, {
    visit: 'Url',
    enter: (node) => {
      urls.push(node);
    },
  });
  await Promise.all(
    urls.map(async (node) => {
      if (node.value.startsWith('#')) return;
      const inside = URL.canParse(node.value, base) ? await resolve(new URL(node.value, base).href) : undefined;
      node.value = inside ?? 'about:invalid';
    }),
  );
  await replaceSets(tree, base, resolve);
}

/** CSS Images 4, 2.4: `image-set()` may name its pictures by strings alone. */
async function replaceSets(tree: csstree.CssNode, base: string, resolve: ResolveUrl): Promise<void> {
  const strings: csstree.StringNode[] = [];
  csstree.walk(tree, {
    visit: 'Function',
    enter(node) {
      if (/^(-webkit-)?image-set$/i.test(node.name))
        node.children.forEach((child) => {
          if (child.type === 'String') strings.push(child);
        });
    },
  });
  await Promise.all(
    strings.map(async (node) => {
      node.value =
        (URL.canParse(node.value, base) ? await resolve(new URL(node.value, base).href) : undefined) ?? 'about:invalid';
    }),
  );
}

/** CSS Syntax 4.3.7: a backslash and hex digits stand for the character; so no text can end its `style` element. */
const safeInStyleElement = (css: string): string => css.replaceAll('<', '\\3c ');
