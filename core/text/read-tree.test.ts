import { describe, expect, test } from '@jest/globals';
import { element, h, textNode } from './fake-tree';
import { readTree } from './read-tree';
import { toTree, TreeMap } from './locate-in-tree';

const text = (...children: Parameters<typeof h>[1][]) => readTree(h('body', ...children)).text;

describe('reading a tree as a stream', () => {
  test('blocks stand on lines of their own and white space folds', () => {
    expect(text(h('h1', ' The  marsh '), '\n  ', h('p', 'Stand on\n the ', h('b', 'sea wall'), ' .'))).toBe(
      'The marsh\nStand on the sea wall .',
    );
  });

  test('a space between inline elements is kept once', () => {
    expect(text(h('p', h('i', 'low '), h('b', ' water')))).toBe('low water');
  });

  test('cells of a row are parted by a tab, rows by a newline', () => {
    const row = (...cells: string[]) => h('tr', ...cells.map((c) => h('td', c)));
    expect(text(h('table', h('tbody', row('Peg', 'Height'), row('41', '3.2'))))).toBe('Peg\tHeight\n41\t3.2');
  });

  test('paragraphs inside cells do not part the row', () => {
    const cell = (c: string) => h('td', '\n', h('p', c), '\n');
    expect(text(h('table', h('tr', cell('a'), cell('b')), h('tr', cell('c'), cell('d'))), h('p', 'after'))).toBe(
      'a\tb\nc\td\nafter',
    );
  });

  test('scripts, styles, hidden things and form controls are silent', () => {
    expect(
      text(
        h('script', 'evil()'),
        h('p', 'kept', h('style', 'p{}')),
        element('div', { hidden: '' }, ['gone']),
        h('textarea', 'no'),
      ),
    ).toBe('kept');
  });

  test('preformatted text keeps its spaces and lines, also across elements', () => {
    expect(text(h('pre', 'let  ', h('b', 'a'), ' = 1\n  b\n'))).toBe('let  a = 1\n  b');
  });

  test('a line break is a newline, and many of them are one', () => {
    expect(text(h('p', 'one', h('br'), h('br'), 'two', h('br')))).toBe('one\ntwo');
  });

  test('soft hyphens and zero-width spaces are dropped', () => {
    expect(text(h('p', 'ac\u00ADcre\u200Btion'))).toBe('accretion');
  });

  test('every block has its role, level, range, address and whether it is aside', () => {
    const stream = readTree(
      h(
        'body',
        element('nav', { 'data-avrelle-aside': '' }, [h('ul', h('li', 'Menu'))]),
        h('main', h('h2', 'Room'), h('p', 'What saves it')),
      ),
    );
    expect(stream.outline).toEqual([
      { start: 0, end: 4, role: 'item', path: '0/0/0', aside: true },
      { start: 5, end: 9, role: 'heading', level: 2, path: '1/0' },
      { start: 10, end: 23, role: 'paragraph', path: '1/1' },
    ]);
  });

  test('deep nesting is read without losing anything', () => {
    let node = h('b', 'deep');
    for (let i = 0; i < 500; i++) node = h('span', node);
    expect(text(node)).toBe('deep');
  });
});

describe('between stream and tree', () => {
  const first = textNode('A salt  marsh ');
  const second = textNode('keeps\u00AD its height');
  const stream = readTree(h('body', h('p', first, h('em', second))));
  const map = new TreeMap(stream);

  test('every stream range comes back from the tree as the same range', () => {
    expect(stream.text).toBe('A salt marsh keeps its height');
    for (let start = 0; start < stream.text.length; start++) {
      for (let end = start + 1; end <= stream.text.length; end++) {
        const points = toTree(stream, start, end)!;
        expect([
          map.offsetOf(points.start.node, points.start.offset),
          map.offsetOf(points.end.node, points.end.offset),
        ]).toEqual([start, end]);
      }
    }
  });

  test('an element boundary maps to the character that follows it', () => {
    const em = second.parentNode!;
    expect(map.offsetOf(em, 0)).toBe(stream.text.indexOf('keeps'));
    expect(map.offsetOf(em, 1)).toBe(stream.text.length);
  });

  test('an empty range has no place in the tree', () => {
    expect(toTree(stream, 3, 3)).toBeUndefined();
  });
});
