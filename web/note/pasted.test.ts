import { expect, test } from '@jest/globals';
import { JSDOM } from 'jsdom';
import { isTypedAddress, withoutTables } from './pasted';

globalThis.DOMParser = new JSDOM().window.DOMParser;

test('a pasted table keeps its cells apart, a row a line', () => {
  const table =
    '<p>Pegs</p><table><tr><th>Peg</th><th>mm</th></tr><tr><td>7</td><td>3.2</td></tr><tr><td></td><td></td></tr></table>';
  expect(withoutTables(table)).toBe('<p>Pegs</p><p>Peg | mm</p><p>7 | 3.2</p>');
  expect(withoutTables('<p>no <b>table</b></p>')).toBe('<p>no <b>table</b></p>');
});

test('only what says that it is an address becomes one', () => {
  expect(['https://a.test/x', 'www.saltmere.test', 'gauge.it', 'e.g', 'peg.7', 'http://x'].map(isTypedAddress)).toEqual(
    [true, true, false, false, false, false],
  );
});
