import { expect, test } from '@jest/globals';
import { openDatabase } from './database';
import { folded, spaced } from './spaced';

/** Latin, Greek and Cyrillic letters that Unicode takes apart into one letter and marks (UnicodeData.txt, by NFD). */
const LETTERS = Array.from({ length: 0x1f00 - 0xc0 }, (_, n) => String.fromCodePoint(0xc0 + n)).filter(
  (c) =>
    /^\p{L}$/u.test(c) && /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]\p{M}+$/u.test(c.normalize('NFD')),
);

// Unicode Collation Algorithm (UTS #10), as ICU has it: letters are alike at the first level where case and accents alone part them.
test('letters are alike as the Unicode collation has them alike at its first level', () => {
  // In the tailored root of CLDR й and ї are letters of their own; here they are found by и and і, as the marks say.
  const own = /[йїѐёѓўќӥӣѷ]/i;
  const collator = new Intl.Collator('und', { sensitivity: 'base' });
  const apart = LETTERS.filter(
    (c) =>
      !own.test(c) &&
      (collator.compare(c, c.normalize('NFD')[0]!) === 0) !== (folded(c) === folded(c.normalize('NFD')[0]!)),
  );
  expect(LETTERS.length).toBeGreaterThan(500);
  expect(apart).toEqual([]);
});

test('names stand in the order of the Unicode collation once case and accents are gone', () => {
  const names = [
    'Ådal',
    'adage',
    'Éclair',
    'eclat',
    'ECHO',
    'Zebra',
    'émile',
    'Öre',
    'ore',
    'orE',
    'Übung',
    'ubiquity',
    'naïve',
    'naive ways',
    'Naxos',
  ];
  const collator = new Intl.Collator('und', { sensitivity: 'base' });
  // By code units, as the database compares.
  expect(names.map(folded).toSorted()).toEqual(names.toSorted(collator.compare).map(folded));
});

test('the index of words and the program fold letters alike, wherever marks stand', () => {
  const db = openDatabase(':memory:');
  db.raw.exec('CREATE VIRTUAL TABLE w USING fts5(t, tokenize="unicode61 remove_diacritics 2")');
  const finds = (letter: string, by: string): boolean => {
    db.run('DELETE FROM w');
    db.run('INSERT INTO w VALUES (?)', spaced(`x${letter}x`));
    return db.get('SELECT 1 AS one FROM w WHERE w MATCH ?', `"${spaced(`x${by}x`)}"`) !== undefined;
  };
  expect(LETTERS.filter((c) => !finds(c, folded(c)) || !finds(c, c) || !finds(c.normalize('NFD'), c))).toEqual([]);
  db.close();
});
