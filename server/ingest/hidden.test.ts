import { describe, expect, test } from '@jest/globals';
import { readTree } from '@avrelle/core/text';
import { ingest } from './ingest';
import { lightTree } from './light-tree';

const OPEN = { names: [], privateHosts: [] };
const textOf = async (css: string, body: string): Promise<string> => {
  const page = `<!doctype html><title>t</title><style>${css}</style><main><p>Seen at ebb.</p>${body}</main>`;
  return (await ingest({ type: 'file', name: 'a.html', bytes: Buffer.from(page) }, OPEN)).text;
};
const HIDDEN = '<p id="i" class="a b">Unseen at flood.</p>';

describe('what a page’s own styles hide is not in its text', () => {
  test.each([
    ['by class', '.a{display:none}'],
    ['by id', '#i { visibility : hidden }'],
    ['within another', 'main > .b{display:none}'],
    ['for wide windows', '@media screen and (min-width:800px){.a{display:none}}'],
    ['against a weaker rule that comes later', 'p.a.b{display:none} .a{display:block}'],
    ['by importance', '.a{display:none!important} #i{display:block}'],
  ])('%s', async (_, css) => {
    expect(await textOf(css, HIDDEN)).toBe('Seen at ebb.');
  });

  test.each([
    ['for narrow windows', '@media (max-width:600px){.a{display:none}}'],
    ['in print', '@media print{.a{display:none}}'],
    ['under a pointer', '.a:hover{display:none}'],
    ['where a stronger rule shows it', '.a{display:none} #i{display:block}'],
    ['where a later rule of one weight shows it', '.a{display:none} .b{display:block}'],
    ['of another place', 'aside .a{display:none}'],
  ])('but not what is hidden %s', async (_, css) => {
    expect(await textOf(css, HIDDEN)).toContain('Unseen');
  });

  test('what a script would have opened is text', async () => {
    const long = `<div class="a">${'The creek runs full, and the bank is cut at its foot. '.repeat(8)}</div>`;
    expect(await textOf('.a{display:none}', long)).toContain('cut at its foot');
  });
});

describe('drawings in SVG', () => {
  const DRAWING =
    '<svg viewBox="0 0 9 9"><title>A map</title><defs><text>defined</text></defs><g><text x="1">Peg <tspan>seven</tspan></text><text>Creek</text></g></svg>';

  test('say what is written in them, each piece a line', async () => {
    expect(await textOf('', DRAWING)).toBe('Seen at ebb.\nPeg seven\nCreek');
  });

  test('are silent in what was kept by the former rules', () => {
    expect(readTree(lightTree(`<!doctype html><body><p>Seen.</p>${DRAWING}`)).text).toBe('Seen.');
  });
});
