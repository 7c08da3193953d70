import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ingest } from './ingest';
import { contentOf, parseTree, serializeTree, within } from './page-tree';
import { settled } from './light-tree';
import { parseHtml } from './parse-html';
import { VECTORS } from '../testing/xss-vectors';
import { sanitise } from './sanitise';

const OPEN = { names: [], privateHosts: [] };
const snapshotOf = async (html: string): Promise<string> =>
  (await ingest({ type: 'file', name: 'page.html', bytes: Buffer.from(`<p>kept words</p>${html}`) }, OPEN)).snapshot;

function dangersOf(name: string, { name: key, value }: { readonly name: string; readonly value: string }): string[] {
  const found: string[] = [];
  if (/^on/i.test(key)) found.push(`${name}[${key}]`);
  // eslint-disable-next-line no-control-regex -- browsers drop these inside addresses
  const plain = value.replace(/[\u0000-\u0020]/g, '');
  if (
    /^(href|src|action|formaction|data|xlink:href|from|to|values|poster|background|srcset)$/i.test(key) &&
    /(javascript|vbscript|data):/i.test(plain)
  )
    found.push(`${name}[${key}=${plain.slice(0, 30)}]`);
  if (/^(src|srcset|poster|background)$/i.test(key) && !value.startsWith('asset/')) found.push(`${name}[${key}]`);
  if (key === 'style' && /url\(\s*["']?(?!about:invalid|#|asset\/)/i.test(value)) found.push(`${name}[style]`);
  return found;
}

/** Whatever could run, load or lead somewhere by itself, in the tree a browser would make of the snapshot. */
function dangers(snapshot: string): string[] {
  const found: string[] = [];
  for (const element of within(parseTree(snapshot))) {
    const name = element.name.toLowerCase();
    if (
      [
        'script',
        'iframe',
        'object',
        'embed',
        'base',
        'form',
        'link',
        'template',
        'applet',
        'frame',
        'frameset',
        'portal',
      ].includes(name)
    )
      found.push(`<${name}>`);
    if (name === 'meta' && 'http-equiv' in element.attribs) found.push('<meta http-equiv>');
    found.push(...element.attributes.flatMap((attribute) => dangersOf(name, attribute)));
    if (name === 'style' && /@import|url\(\s*["']?(?!about:invalid|#|asset\/)/i.test(contentOf(element)))
      found.push('<style> that loads');
  }
  return found;
}

describe('published cross-site-scripting vectors leave nothing that could act', () => {
  test.each(VECTORS)('%s', async (vector) => {
    expect(dangers(await snapshotOf(vector))).toEqual([]);
  });

  test('the check itself sees danger where there is some', () => {
    expect(VECTORS.filter((vector) => dangers(`<p>${vector}`).length > 0).length).toBeGreaterThan(VECTORS.length * 0.8);
  });
});

test('words, links and tables stay as they are', async () => {
  const snapshot = await snapshotOf(
    '<table><tr><td>a</td></tr></table><a href="http://review.saltmere.test/x">link</a><math><mi>x</mi></math>',
  );
  expect(snapshot).toContain('<td>a</td>');
  expect(snapshot).toContain('<a href="http://review.saltmere.test/x">link</a>');
  expect(snapshot).toContain('<mi>x</mi>');
});

test('what shapes a picture or a table stays; what it would fetch goes', () => {
  const tree = parseHtml(
    '<table><tr><td colspan="2" width="40">x</td></tr></table><time datetime="2026-05-06">May</time><svg viewBox="0 0 9 9" width="9"><path d="M1 1h7" fill="url(#here)" mask="url(http://tracker.invalid/m)"/></svg>',
    'http://x.test/',
  );
  const { body } = sanitise(tree, 'http://x.test/');
  for (const kept of ['colspan="2"', 'datetime="2026-05-06"', 'viewBox="0 0 9 9"', 'd="M1 1h7"', 'fill="url(#here)"'])
    expect(body).toContain(kept);
  expect(body).not.toContain('tracker');
});

test('what follows something nested wrongly on purpose is not lost with it', () => {
  const all = VECTORS.map((vector) => `<div>${vector}</div>`).join('\n');
  const { body } = sanitise(
    parseHtml(`<h1>Attack</h1>${all}<p>Calm words at the end.</p>`, 'http://x.test/'),
    'http://x.test/',
  );
  expect(body).toContain('Calm words at the end.');
});

/** Pieces by which parsers have been led to read the same markup in two ways: names from published mutation attacks. */
const PIECES = [
  ...'svg math mtext mi mglyph malignmark annotation-xml foreignObject desc title style table tr td select option form p a b div textarea noscript template xmp plaintext iframe noembed body frameset li button nobr font'
    .split(' ')
    .flatMap((name) => [`<${name}>`, `</${name}>`]),
  '<annotation-xml encoding="text/html">',
  '<font color=red>',
  '<!--',
  '-->',
  '<![CDATA[',
  ']]>',
  '<img src=x onerror=hit()>',
  '<style><img src=x onerror=hit()></style>',
  '<a title="</title><img src=x onerror=hit()>">',
  '&lt;img src=x onerror=hit()&gt;',
  '<path/>',
  'words',
];

test('whatever is nested in whatever, what is left is allowed, and is read again as it was written', () => {
  const snippet = fc.array(fc.constantFrom(...PIECES), { minLength: 1, maxLength: 14 }).map((parts) => parts.join(''));
  fc.assert(
    fc.property(snippet, (markup) => {
      const { body } = sanitise(parseHtml(`<!doctype html><body>${markup}`, 'http://x.test/'), 'http://x.test/');
      const { html, tree } = settled(`<!doctype html><html><head></head><body>${body}</body></html>`);
      expect([...dangers(body), ...dangers(html)]).toEqual([]);
      expect(serializeTree(tree)).toBe(html);
      expect(serializeTree(parseTree(html))).toBe(html);
    }),
    { numRuns: 3_000 },
  );
});
