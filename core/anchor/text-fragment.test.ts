import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { JSDOM } from 'jsdom';
import * as reference from 'text-fragments-polyfill/text-fragment-utils';
import {
  addressOf,
  describe,
  directiveFor,
  findDirective,
  formatTextDirective,
  indexText,
  parseTextDirective,
  readAddress,
} from './index';
import { readTree } from '../text';

const HTML = `<!doctype html><body><h1>Glasswort</h1><p>Glasswort grows low on the mud-flat, and sea lavender above it.</p><p>Sea lavender is cut in July; glasswort, in June, by hand.</p>
<p>Whoever cuts sea lavender in August cuts it too late.</p></body>`;
const dom = new JSDOM(HTML);
const index = indexText(readTree(dom.window.document.documentElement as never).text);

/** The open reference library for text fragments (text-fragments-polyfill) on the same document. It needs a browser's globals. */
function byReference(value: string): string | undefined {
  const { window } = dom;
  Object.assign(globalThis, {
    Node: window.Node,
    NodeFilter: window.NodeFilter,
    Range: window.Range,
    Element: window.Element,
    HTMLElement: window.HTMLElement,
    window,
    document: window.document,
    navigator: window.navigator,
  });
  window.HTMLElement.prototype.getBoundingClientRect = () => ({ height: 1, width: 1 }) as DOMRect;
  const [parsed] = reference.parseFragmentDirectives({ text: [value] }).text;
  const [found] = reference.processTextFragmentDirective(parsed, window.document, window.document.body);
  return found?.toString().replace(/\s+/g, ' ');
}
const ours = (value: string): string | undefined => {
  const directive = parseTextDirective(value);
  const found = directive && findDirective(index, directive);
  return found && index.text.slice(found.start, found.end).replace(/\s+/g, ' ');
};

test.each([
  'Glasswort%20grows',
  'glasswort%20grows',
  'sea%20lavender',
  'sea%20lavender,-above',
  'cut%20in%20July;-,glasswort',
  'lavender%20is,hand',
  'mud%2Dflat,-%2C%20and',
  'cuts-,sea,late',
  'eelgrass',
  'laven',
  'wort%20grows',
  'in-,June',
  'and-,sea%20lavender,-above',
])('the reference library agrees on what text=%s selects', (value) => {
  expect(ours(value)).toBe(byReference(value));
});

test('what is given for a passage selects that passage, by our reading and by the reference library’s', () => {
  const { text } = index;
  for (const words of ['sea lavender', 'Sea lavender is cut', 'cuts it too late', 'glasswort', 'mud-flat, and', 'in']) {
    for (let start = text.indexOf(words); start >= 0; start = text.indexOf(words, start + 1)) {
      const directive = directiveFor(index, describe(index, { start, end: start + words.length }));
      const found = findDirective(index, directive)!;
      expect(found.start).toBeLessThanOrEqual(start);
      expect(found.end).toBeGreaterThanOrEqual(start + words.length);
      expect(text.slice(found.start, found.end)).toBe(byReference(formatTextDirective(directive)));
    }
  }
});

test('a passage over several paragraphs is named by its ends', () => {
  const start = index.text.indexOf('grows low');
  const end = index.text.indexOf('by hand') + 7;
  const directive = directiveFor(index, describe(index, { start, end }));
  expect(directive).toMatchObject({
    start: expect.stringMatching(/^grows low/),
    end: expect.stringMatching(/by hand$/),
  });
  expect(findDirective(index, directive)).toEqual({ start, end });
});

test('what is written is read as the same', () => {
  const part = fc.string({ minLength: 1, maxLength: 20, unit: 'grapheme' }).filter((s) => s.trim() !== '');
  fc.assert(
    fc.property(
      fc.record({ start: part, end: part, prefix: part, suffix: part }, { requiredKeys: ['start'] }),
      (directive) => {
        expect(parseTextDirective(formatTextDirective(directive))).toEqual(directive);
      },
    ),
    { seed: 5 },
  );
});

test('an address is parted from its directives, and given one', () => {
  expect(readAddress('http://a.test/x?y=1#part:~:text=one,two&text=three&unknown')).toEqual({
    address: 'http://a.test/x?y=1#part',
    directives: [{ start: 'one', end: 'two' }, { start: 'three' }],
  });
  expect(readAddress('http://a.test/#:~:text=a%20b')).toEqual({
    address: 'http://a.test/',
    directives: [{ start: 'a b' }],
  });
  expect(readAddress('http://a.test/#plain')).toEqual({ address: 'http://a.test/#plain', directives: [] });
  expect(addressOf('http://a.test/#part', { start: 'low, on' })).toBe('http://a.test/#part:~:text=low%2C%20on');
});

test.each(['', ',', '%E0%A4%A', 'a,b,c', 'a-,b,c,d,-e'])('text=%s does not hold to the grammar', (value) => {
  expect(parseTextDirective(value)).toBeUndefined();
});
