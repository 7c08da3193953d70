import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { CODE, webPages } from './web-pages';

const ID = '01a21383-76b0-7191-85c7-08241c5c4dee';
const built = (): string => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-web-'));
  fs.mkdirSync(path.join(folder, '.vite'));
  fs.writeFileSync(
    path.join(folder, 'index.html'),
    '<html><head><script src="/assets/index-1.js"></script></head><body></body></html>',
  );
  fs.writeFileSync(
    path.join(folder, '.vite/manifest.json'),
    JSON.stringify({
      'index.html': { file: 'assets/index-1.js' },
      _shared: { file: 'assets/shared-2.js', imports: ['index.html'] },
      'reader/ReaderPage.tsx': { file: 'assets/Reader-3.js', imports: ['_shared', 'index.html'] },
      'library/LibraryPage.tsx': { file: 'assets/Library-4.js', imports: ['_shared'] },
    }),
  );
  return folder;
};
const links = (html: string, rel: string): string[] =>
  [...html.matchAll(new RegExp(`rel="${rel}"[^>]*href="([^"]+)"`, 'g'))].map(([, href]) => href!);

test('a page tells of the code it needs, once each, without what the page names already', () => {
  expect(links(webPages(built())(`/source/${ID}`, false), 'modulepreload')).toEqual([
    '/assets/Reader-3.js',
    '/assets/shared-2.js',
  ]);
  expect(links(webPages(built())('/library', true), 'modulepreload')).toEqual([
    '/assets/Library-4.js',
    '/assets/shared-2.js',
  ]);
});

test('data are asked for only for those who are signed in, and only for an address that is one', () => {
  const page = webPages(built());
  expect(links(page(`/source/${ID}`, false), 'preload')).toEqual([]);
  expect(links(page(`/source/${ID}`, true), 'preload')).toEqual([
    '/api/welcome',
    `/api/sources/${ID}`,
    `/api/sources/${ID}/text`,
    '/api/classes',
    `/api/sources/${ID}/annotations`,
  ]);
  expect(page('/source/"><script>alert(1)</script>', true)).not.toContain('alert');
});

test('the code that is told of is that of the pages', () => {
  const pages = fs.readFileSync('web/pages.tsx', 'utf8');
  for (const [, file] of CODE) expect(pages).toContain(`import('./${file.replace('.tsx', '')}')`);
});

test('without a list of what was built the page is as it was', () => {
  const folder = built();
  fs.rmSync(path.join(folder, '.vite'), { recursive: true });
  expect(webPages(folder)('/library', false)).toBe(fs.readFileSync(path.join(folder, 'index.html'), 'utf8'));
});
