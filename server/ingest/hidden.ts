import { HIDDEN_ATTRIBUTE } from '@avrelle/core/text';
import * as csstree from 'css-tree';
import { fits, within, wordsOf, type PageElement, type PageTree, type Test } from './page-tree';

/** Behind so many characters stands content that a script would open: without one, it is kept as text. */
const LONGEST_HIDDEN = 250;
/** As wide as the window in which a page's styles are asked. */
const WIDTH = 1280;

/** What one selector says of `display` or `visibility`. */
interface Saying {
  readonly test: Test;
  /** A class, id or name that whatever fits must have. */
  readonly key: string;
  readonly hides: boolean;
  /** Comparable as text: importance, specificity (CSS Selectors 4, 17), order. */
  readonly weight: string;
}

/**
 * Marks what a page's own styles hide (`display: none`, `visibility: hidden`), so that it is neither found nor read.
 * States that only a pointer or a key brings about are passed over, and so is what a script could have opened.
 */
export function markHidden(tree: PageTree): void {
  const styles = within(tree, (element) => element.name === 'style');
  const wide = styles.filter((style) => appliesTo(style.attribs.media ?? ''));
  const css = wide.map(cssOf).filter((text) => /none|hidden/.test(text));
  if (css.length === 0) return;
  const elements = within(tree);
  const sayings = css.flatMap((text, n) => sayingsIn(text, n));
  for (const property of ['display', 'visibility'])
    hide(
      elements,
      sayings.filter((s) => s.property === property),
    );
}

const cssOf = (style: PageElement): string =>
  style.children.map((child) => ('data' in child ? child.data : '')).join('');

function hide(elements: readonly PageElement[], sayings: readonly Saying[]): void {
  const byKey = keyed(elements);
  const fitting = (saying: Saying): PageElement[] => (byKey.get(saying.key) ?? []).filter(saying.test);
  const heaviest = new Map<PageElement, Saying>();
  for (const saying of sayings.filter((s) => s.hides))
    for (const element of fitting(saying)) keepHeavier(heaviest, element, saying);
  for (const saying of sayings.filter((s) => !s.hides)) {
    for (const element of byKey.get(saying.key) ?? [])
      if (heaviest.has(element) && saying.test(element)) keepHeavier(heaviest, element, saying);
  }
  for (const [element, { hides }] of heaviest)
    if (hides && mayBeHidden(element)) element.attribs[HIDDEN_ATTRIBUTE] = '';
}

/** Not the page itself, nor what is too long to be a remark aside. */
const mayBeHidden = (element: PageElement): boolean =>
  element.name !== 'html' && element.name !== 'body' && wordsOf(element).length <= LONGEST_HIDDEN;

function keepHeavier(heaviest: Map<PageElement, Saying>, element: PageElement, saying: Saying): void {
  const before = heaviest.get(element);
  if (!before || before.weight <= saying.weight) heaviest.set(element, saying);
}

/** Elements by `.class`, `#id` and name. */
function keyed(elements: readonly PageElement[]): ReadonlyMap<string, readonly PageElement[]> {
  const found = new Map<string, PageElement[]>();
  const add = (key: string, element: PageElement): void => {
    const list = found.get(key);
    if (list) list.push(element);
    else found.set(key, [element]);
  };
  for (const element of elements) {
    add('*', element);
    add(element.name, element);
    if (element.attribs.id) add(`#${element.attribs.id}`, element);
    for (const name of new Set((element.attribs.class ?? '').split(/\s+/))) if (name) add(`.${name}`, element);
  }
  return found;
}

type Said = Saying & { readonly property: string };

function sayingsIn(css: string, sheet: number): Said[] {
  const found: Said[] = [];
  let order = 0;
  const read = (node: csstree.CssNode): void => {
    if (node.type === 'StyleSheet' || node.type === 'Block') node.children.forEach(read);
    else if (node.type === 'Atrule' && node.block && isForScreens(node)) node.block.children.forEach(read);
    else if (node.type === 'Rule') found.push(...sayingsOf(node, `${pad(sheet)}${pad(order++)}`));
  };
  read(csstree.parse(css, { parseCustomProperty: false, onParseError: () => undefined }));
  return found;
}

function sayingsOf(rule: csstree.Rule, order: string): Said[] {
  const declared = rule.block.children.toArray().flatMap((node) => {
    if (node.type !== 'Declaration' || !/^(display|visibility)$/i.test(node.property)) return [];
    const value = csstree.generate(node.value).toLowerCase();
    const hides = value === 'none' || value === 'hidden' || value === 'collapse';
    return [{ property: node.property.toLowerCase(), hides, important: node.important !== false }];
  });
  if (declared.length === 0 || rule.prelude.type !== 'SelectorList') return [];
  return rule.prelude.children.toArray().flatMap((selector) => {
    const read = selector.type === 'Selector' ? readSelector(selector) : undefined;
    if (!read) return [];
    return declared.map(({ property, hides, important }) => ({
      ...read,
      property,
      hides,
      weight: `${important ? 1 : 0}${read.weight}${order}`,
    }));
  });
}

const pad = (n: number): string => String(n).padStart(6, '0');
/** Pseudo-classes that say where an element stands, not in what state it is. */
const STANDING =
  /^(root|empty|first-child|last-child|only-child|first-of-type|last-of-type|only-of-type|nth-child|nth-last-child|nth-of-type|nth-last-of-type|not|is|where|has|link|any-link)$/i;

function readSelector(selector: csstree.Selector): Pick<Saying, 'test' | 'key' | 'weight'> | undefined {
  let ids = 0;
  let classes = 0;
  let names = 0;
  let key = '*';
  let dynamic = false;
  csstree.walk(selector, (node) => {
    if (node.type === 'IdSelector') ids++;
    else if (node.type === 'ClassSelector' || node.type === 'AttributeSelector' || node.type === 'PseudoClassSelector')
      classes++;
    else if (node.type === 'TypeSelector' && node.name !== '*') names++;
    if (node.type === 'PseudoElementSelector' || (node.type === 'PseudoClassSelector' && !STANDING.test(node.name)))
      dynamic = true;
  });
  selector.children.forEach((node) => {
    if (node.type === 'Combinator') key = '*';
    else if (node.type === 'IdSelector') key = `#${node.name}`;
    else if (node.type === 'ClassSelector' && !key.startsWith('#')) key = `.${node.name}`;
    else if (node.type === 'TypeSelector' && key === '*') key = node.name.toLowerCase();
  });
  if (dynamic) return undefined;
  try {
    return { test: fits(csstree.generate(selector)), key, weight: pad(ids) + pad(classes) + pad(names) };
  } catch {
    // What the selector library does not know says nothing of what is seen.
    return undefined;
  }
}

function isForScreens(rule: csstree.Atrule): boolean {
  const name = rule.name.toLowerCase();
  if (name === 'supports' || name === 'layer') return true;
  return name === 'media' && rule.prelude !== null && appliesTo(csstree.generate(rule.prelude));
}

/** Whether a list of media queries is met by a screen of that width, as far as it can be told without one. */
function appliesTo(media: string): boolean {
  if (media.trim() === '') return true;
  return media.split(',').some((query) => {
    if (/\bprint\b|\bspeech\b|prefers-|orientation|hover|pointer|scripting/i.test(query)) return false;
    const least = /min-width\s*:\s*([\d.]+)(px|em|rem)/i.exec(query);
    const most = /max-width\s*:\s*([\d.]+)(px|em|rem)/i.exec(query);
    return !(least && pixels(least) > WIDTH) && !(most && pixels(most) < WIDTH);
  });
}

const pixels = ([, value, unit]: RegExpExecArray): number => Number(value) * (unit?.toLowerCase() === 'px' ? 1 : 16);
