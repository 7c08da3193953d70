import * as csstree from 'css-tree';

/** What a book may say of its own look; face, size, colour, place and measure are the reader's. */
const ALLOWED =
  /^(font-(style|weight|variant.*)|text-(align|indent|transform|decoration.*)|vertical-align|white-space|list-style.*|margin(-(top|bottom|left|right))?|padding-left|display|page-break-.*|break-.*|hyphens|border-(collapse|top|bottom)|quotes|content|counter-.*)$/;
const OUT_OF_PLACE = /^(fixed|absolute|none|inline-flex|flex|grid)$/;

/** A book's style sheet, held to what its text needs and to the elements below `scope`. */
export function tameCss(css: string, scope: string): string {
  const tree = csstree.parse(css, { context: 'stylesheet', onParseError: () => undefined });
  csstree.walk(tree, {
    enter(node: csstree.CssNode, item: csstree.ListItem<csstree.CssNode>, list: csstree.List<csstree.CssNode>) {
      if (node.type === 'Atrule') return void list?.remove(item);
      if (node.type !== 'Declaration') return;
      const value = csstree.generate(node.value);
      if (
        !ALLOWED.test(node.property.toLowerCase()) ||
        /url\(/i.test(value) ||
        (node.property === 'display' && OUT_OF_PLACE.test(value))
      )
        list?.remove(item);
    },
  });
  csstree.walk(tree, {
    visit: 'Rule',
    enter(node, item, list) {
      if (node.prelude.type !== 'SelectorList') return;
      // What is said of the whole page is about measure and margins, which are the reader's.
      const own = node.prelude.children
        .toArray()
        .map((selector) => csstree.generate(selector))
        .filter((selector) => !/^(html|body|:root)(\s*>?\s*(html|body))?$/.test(selector));
      if (own.length === 0) return void list?.remove(item);
      const scoped = own.map((selector) => `${scope} ${selector.replace(/^(html|body|:root)\b[\s>]*/, '')}`.trim());
      node.prelude = csstree.parse(scoped.join(','), { context: 'selectorList' }) as csstree.SelectorList;
    },
  });
  return csstree.generate(tree).replaceAll('<', '\\3c ');
}
