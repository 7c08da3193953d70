import { expect, test } from '@jest/globals';
import { ingest } from './ingest';
import { checkMarkup } from './markup-limits';
import { AppError } from '../errors';

const OPEN = { names: [], privateHosts: [] };
const words = '<p>The tide turns at seven, and the ferry leaves with whoever is there on the bank.</p>';
const keep = (html: string): Promise<string> =>
  ingest({ type: 'file', name: 'a.html', bytes: Buffer.from(html) }, OPEN).then(
    () => 'kept',
    (e: unknown) => (e instanceof AppError ? e.message : String(e)),
  );

test.each([
  ['100,000 nested elements', `${'<div>'.repeat(100_000)}${words}`, /stand in one another/],
  ['1,000 nested elements', `${'<section>'.repeat(1_000)}${words}`, /nested more than 512 deep/],
  [
    '200,000 attributes',
    `<div ${Array.from({ length: 200_000 }, (_, n) => `a${n}="x"`).join(' ')}>${words}</div>`,
    /more than 1,000 attributes/,
  ],
  ['400,001 elements', '<br>'.repeat(400_000) + words, /400,001 elements/],
])('%s are refused at once, with the true reason', async (_name, html, why) => {
  const before = performance.now();
  expect(await keep(html)).toMatch(why);
  // Far from a bar: it was a minute and a half.
  expect(performance.now() - before).toBeLessThan(10_000);
});

test('what only looks like too much is kept: closed elements, ends left out, signs in values, comments and scripts', async () => {
  expect(() =>
    checkMarkup(
      `${'<div></div>'.repeat(5_000)}${'<p>a<li>b'.repeat(5_000)}<a title="${'<div>'.repeat(5_000)}">x</a><!-- ${'<div>'.repeat(5_000)} --><script>${'"<div>"'.repeat(5_000)}</script>${'<br/><img alt=x>'.repeat(5_000)}`,
      'a',
    ),
  ).not.toThrow();
  expect(await keep(`${'<div>'.repeat(300)}${words}${'</div>'.repeat(300)}`)).toBe('kept');
});

test('elements of drawings may end with their own tag; those of HTML may not, in a drawing either', () => {
  const drawn = (markup: string, after = ''): string => `<svg>${after}${markup.repeat(5_000)}</svg>`;
  expect(() => checkMarkup(drawn('<path d="M1 1"/>'), 'a')).not.toThrow();
  expect(() => checkMarkup(drawn('<g><title>n</title><path/></g>'), 'a')).not.toThrow();
  for (const nested of [drawn('<div/>'), drawn('<path/>', '<title>'), '<path/>'.repeat(5_000), drawn('<b/><path/>')])
    expect(() => checkMarkup(nested, 'a')).toThrow(/stand in one another/);
});

test('a page that is cut off anywhere is looked through to its end', () => {
  const page = '<div class="a" title=\'b\'><!-- c --><script>d</script><a href=x>e</a></div>';
  for (let end = 0; end <= page.length; end++) expect(() => checkMarkup(page.slice(0, end), 'a')).not.toThrow();
});
