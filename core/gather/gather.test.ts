import { describe, expect, test } from '@jest/globals';
import { addressesIn, citation } from './index';

describe('addresses in a text', () => {
  test.each<[string, string, string[]]>([
    [
      'one a line, with remarks',
      'http://a.test/x  the first\n\nsee http://b.test/y.',
      ['http://a.test/x', 'http://b.test/y'],
    ],
    ['each once', 'http://a.test/x http://a.test/x', ['http://a.test/x']],
    [
      'in brackets and quotation marks',
      '(http://a.test/x) "http://b.test/y" <http://c.test/z>',
      ['http://a.test/x', 'http://b.test/y', 'http://c.test/z'],
    ],
    [
      'as fields of a table',
      'http://a.test/x,The first,1\nhttp://b.test/y;http://c.test/z',
      ['http://a.test/x', 'http://b.test/y', 'http://c.test/z'],
    ],
    [
      'in a bookmarks file',
      '<DT><A ADD_DATE="1" HREF="http://a.test/?p=1&amp;q=2">A</A> http://not.test/ <a href=\'https://b.test\'>B</a><a href="ftp://c.test/">C</a>',
      ['http://a.test/?p=1&q=2', 'https://b.test/'],
    ],
    ['none', 'words, and mailto:a@b.test', []],
  ])('%s', (_what, text, found) => {
    expect(addressesIn(text)).toEqual(found);
  });
});

describe('a citation', () => {
  const paper = {
    title: 'The Marsh',
    author: 'Odile Farrant; Tilda Wick',
    site: 'Saltmere Review',
    publishedAt: '2026-10-02T00:00:00.000Z',
    doi: '',
    address: 'http://review.saltmere.test/marsh',
    keptAt: '2026-11-20T10:00:00Z',
  };
  test('names who, when, what, where and when it was kept', () => {
    expect(citation(paper)).toBe(
      'Odile Farrant and Tilda Wick (2026). The Marsh. Saltmere Review. http://review.saltmere.test/marsh (kept 2026-11-20)',
    );
  });
  test('goes by DOI where there is one, and begins with the title where nobody is named', () => {
    expect(citation({ ...paper, doi: '10.5555/m.7', author: '' })).toBe(
      'The Marsh. (2026). Saltmere Review. https://doi.org/10.5555/m.7',
    );
    expect(
      citation({ ...paper, author: 'A; B; C; D', publishedAt: null, title: 'Why?', site: '', address: null }),
    ).toBe('A and others (undated). Why?');
  });
});
