import fc from 'fast-check';
import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { mainText } from '@avrelle/core/text';
import { AppError } from '../../../errors';
import { labelPages, pdf } from '../../../testing/files';
import { ingest } from '../../ingest';
import { joined, paragraphsOf } from './paragraphs';
import { readingOrder, type Run } from './reading-order';

const POLICY = { names: [], privateHosts: [] };
const keep = (bytes: Uint8Array, more: object = {}) =>
  ingest({ type: 'file', name: 'survey.pdf', bytes, ...more }, POLICY);
const refusal = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'kept',
    (e: unknown) => (e instanceof AppError ? e.code : String(e)),
  );
const has = (program: string): boolean => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;

const LEFT =
  'The pegs were set in a spring of little wind, forty-eight brass rods along six lines, each at a height that the levels of the year before had given. Every April since then they have been read, but for one year. ';
const RIGHT =
  'What a peg tells is small: how far the mud has come up its side since the last reading. A ruler held at the surface sinks, so a plate is laid down first, and the plate is read instead of the mud. ';

const twoColumns = () =>
  pdf((doc) => {
    labelPages(doc, 1);
    const gate = doc.outline.addItem('How the pegs were read');
    doc.font('Times-Bold').fontSize(24).text('Survey of the pegs', { align: 'center' });
    doc
      .moveDown()
      .font('Times-Roman')
      .fontSize(11)
      .text(
        'An abstract runs over the whole width of the page, and says in a few lines what the two columns below it say at length, as abstracts do in the reports of the college.',
        { width: 475 },
      );
    doc.moveDown();
    const top = doc.y;
    doc.text(LEFT.repeat(3).trim(), 60, top, { width: 225, align: 'justify' });
    doc.text(RIGHT.repeat(3).trim(), 310, top, { width: 225, align: 'justify' });
    doc.fontSize(9).text('Saltmere College 1', 60, 765, { lineBreak: false });
    for (const page of [2, 3]) {
      doc.addPage();
      if (page === 2) {
        doc.fontSize(15).font('Times-Bold').text('How the pegs were read');
        gate.addItem('By plate');
      }
      doc
        .font('Times-Roman')
        .fontSize(11)
        .text(
          'A marsh is not measured by look-\ning at it. The tide-mark on the wall is no measure, and the tide-\nmark on a boot is none.',
        );
      doc.fontSize(9).text(`Saltmere College ${page}`, 60, 765, { lineBreak: false });
    }
  });

describe('a report in two columns', () => {
  test('is read down one column, then down the next, below its title', async () => {
    const { text, meta, facts, kind } = await keep(await twoColumns());
    const at = (words: string): number => text.replace(/\s+/g, ' ').indexOf(words);
    expect(kind).toBe('pdf');
    expect(meta).toMatchObject({ title: 'Survey of the pegs', author: 'Odile Farrant' });
    expect(facts.pages).toBe(3);
    const [title, abstract, left, right] = [
      'Survey of the pegs',
      'An abstract',
      LEFT.trim().slice(0, 60),
      RIGHT.trim().slice(0, 60),
    ].map(at);
    expect([title! >= 0, title! < abstract!, abstract! < left!, left! < right!]).toEqual([true, true, true, true]);
    expect(text.replace(/\s+/g, ' ')).toContain(`${LEFT.repeat(3).trim()} ${RIGHT.repeat(3).trim()}`);
  });

  test('has pages, labels, headings of its outline, and running heads aside', async () => {
    const { text, outline, snapshot } = await keep(await twoColumns());
    const labels = [
      ...new Set(outline.map((b) => (b.locator && 'page' in b.locator ? `${b.locator.page}:${b.locator.label}` : ''))),
    ];
    expect(labels).toEqual(['1:i', '2:1', '3:2']);
    const headings = outline.filter((b) => b.role === 'heading').map((b) => [b.level, text.slice(b.start, b.end)]);
    expect(headings).toEqual([
      [1, 'Survey of the pegs'],
      [2, 'How the pegs were read'],
    ]);
    expect(outline.filter((b) => b.aside).map((b) => text.slice(b.start, b.end))).toEqual([
      'Saltmere College 1',
      'Saltmere College 2',
      'Saltmere College 3',
    ]);
    expect(snapshot).not.toMatch(/<script|src=/);
  });

  test('joins words that line ends parted, but for those that bear their hyphen elsewhere', async () => {
    const { text } = await keep(
      await pdf((doc) => doc.text('One sees it by look-\ning. The tide-mark is old. No tide-\nmark is new.')),
    );
    expect(text).toContain('One sees it by looking. The tide-mark is old. No tide-mark is new.');
  });

  (has('pdftotext') ? test : test.skip)('has the words that poppler’s pdftotext reads, in its order', async () => {
    const bytes = await twoColumns();
    const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-')), 'a.pdf');
    fs.writeFileSync(file, bytes);
    // Poppler reads folios as the last line of the left column; ours stand outside the text.
    const theirs = execFileSync('pdftotext', ['-enc', 'UTF-8', file, '-'], { encoding: 'utf8' }).replace(
      /Saltmere College \d/g,
      '',
    );
    const { text: all, outline } = await keep(bytes);
    const text = mainText(all, outline);
    const words = (given: string): string[] =>
      given
        .replace(/-\s*\n/g, '')
        .replace(/-/g, '')
        .split(/\s+/)
        .filter(Boolean);
    expect(words(text)).toEqual(words(theirs));
  });
});

test('ligatures are opened', async () => {
  const order = paragraphsOf(readingOrder([run('a \uFB01ne day', 10, 10)]));
  expect(order[0]!.text).toBe('a \uFB01ne day');
  const { text } = await keep(
    await pdf((doc) =>
      doc
        .font('node_modules/@fontsource-variable/literata/files/literata-latin-wght-normal.woff2')
        .text('The office finds a fluffy reef'),
    ),
  );
  expect(text).toContain('The office finds a fluffy reef');
});

test('a scan says so, and still has a place on each page', async () => {
  const { facts, text, outline } = await keep(
    await pdf((doc) => {
      doc.rect(50, 50, 100, 100).fill('grey');
      doc.addPage().rect(10, 10, 20, 20).fill('grey');
    }),
  );
  expect(facts).toMatchObject({ pages: 2, scanned: 2 });
  expect([text.split('\n').length, outline.length]).toEqual([2, 2]);
});

describe('files that make trouble', () => {
  const locked = () =>
    pdf((doc) => doc.text('Behind a lock.'), { userPassword: 'low tide', ownerPassword: 'x', pdfVersion: '1.7' });

  test('a locked one asks for its password, and opens with it', async () => {
    const bytes = await locked();
    expect(await refusal(keep(bytes))).toBe('password_needed');
    expect(await refusal(keep(bytes, { password: 'high tide' }))).toBe('password_mismatch');
    expect((await keep(bytes, { password: 'low tide' })).text).toContain('Behind a lock.');
  });

  test.each([0.2, 0.5, 0.9])('cut off after %s of it, it is refused or read, never worse', async (share) => {
    const bytes = await twoColumns();
    expect(await refusal(keep(bytes.subarray(0, Math.floor(bytes.length * share))))).toMatch(/^(bad_pdf|kept)$/);
  });

  test('noise behind the right first bytes is refused', async () => {
    expect(
      await refusal(
        keep(
          Buffer.concat([
            Buffer.from('%PDF-1.7\n'),
            Buffer.from(Array.from({ length: 4000 }, (_, n) => (n * 7919) % 256)),
          ]),
        ),
      ),
    ).toBe('bad_pdf');
  });

  test('one that is called otherwise is known by its bytes', async () => {
    expect(
      (await ingest({ type: 'file', name: 'survey.txt', bytes: await locked(), password: 'low tide' }, POLICY)).kind,
    ).toBe('pdf');
  });
});

function run(text: string, x: number, baseline: number, size = 10): Run {
  return { text, x, baseline, size, width: text.length * size * 0.5 };
}

describe('reading order', () => {
  const column = (words: string, x: number, from = 0): Run[] =>
    [0, 1, 2, 3, 4].map((n) => run(`${words} line ${n} of some words`, x, from + n * 12));
  const first = (runs: readonly Run[]): string[] => readingOrder(runs).map((s) => s.text.split(' ')[0]!);

  test('three columns are read one after the other', () => {
    expect(first([...column('c', 500), ...column('a', 20), ...column('b', 260)])).toEqual([
      ...Array(5).fill('a'),
      ...Array(5).fill('b'),
      ...Array(5).fill('c'),
    ]);
  });

  test('a line over both columns parts what is above from what is below', () => {
    const across = run('across the whole page runs this one line of words and more words yet until its end', 20, 70);
    expect(
      first([...column('a', 20), ...column('b', 300), across, ...column('d', 300, 90), ...column('c', 20, 90)]),
    ).toEqual([...Array(5).fill('a'), ...Array(5).fill('b'), 'across', ...Array(5).fill('c'), ...Array(5).fill('d')]);
  });

  test('a table below two columns is read after both, row by row', () => {
    const table = [0, 1, 2].flatMap((n) => [
      run(`peg ${n}`, 20, 120 + n * 12),
      run(`${n} mm`, 100, 120 + n * 12),
      run('mud', 320, 120 + n * 12),
    ]);
    expect(first([...column('b', 300), ...table, ...column('a', 20)])).toEqual([
      ...Array(5).fill('a'),
      ...Array(5).fill('b'),
      'peg',
      '0',
      'mud',
      'peg',
      '1',
      'mud',
      'peg',
      '2',
      'mud',
    ]);
  });

  test('columns that go on below a picture across both are read to their end', () => {
    expect(first([...column('a', 20), ...column('b', 300), ...column('a', 20, 200), ...column('b', 300, 200)])).toEqual(
      [...Array(10).fill('a'), ...Array(10).fill('b')],
    );
  });

  test('the cells of a table are read row by row', () => {
    const table = [0, 1, 2, 3].flatMap((n) => [
      run(`peg ${n}`, 20, n * 12),
      run(`${n} mm`, 200, n * 12),
      run('mud', 320, n * 12),
    ]);
    expect(
      readingOrder(table)
        .map((s) => s.text)
        .slice(0, 6),
    ).toEqual(['peg 0', '0 mm', 'mud', 'peg 1', '1 mm', 'mud']);
  });

  test('runs that files set apart within a line get their space, letters spaced by hand do not', () => {
    expect(readingOrder([run('mud', 10, 10), run('keeps', 28, 10)])[0]!.text).toBe('mud keeps');
    expect(readingOrder([run('mu', 10, 10), run('d', 20.5, 10)])[0]!.text).toBe('mud');
  });

  test('an indent, a gap, another size and a short last line begin a paragraph', () => {
    const lines = [
      run('A first line of a paragraph set', 20, 0),
      run('and its short end.', 20, 12),
      run('Next begins after the short end, set', 20, 24),
      run('as wide as the others are here', 20, 36),
      run('indented is another paragraph', 35, 48),
      run('with its second line at the left', 20, 60),
      run('far below', 20, 100),
      run('large', 20, 125, 18),
    ];
    expect(paragraphsOf(readingOrder(lines)).map((p) => p.text.split(' ')[0])).toEqual([
      'A',
      'Next',
      'indented',
      'far',
      'large',
    ]);
  });

  test('a hyphen before a capital letter is kept', () => {
    const [paragraph] = paragraphsOf(readingOrder([run('the Salt-', 20, 0), run('Mere road', 20, 12)]));
    expect(
      joined(paragraph!.lines, () => false)
        .map((p) => p.text)
        .join(''),
    ).toBe('the Salt- Mere road');
  });
});

test('whatever stands on a page, it is ordered: nothing is lost, and it ends', () => {
  const some = fc.record({
    text: fc.string({ minLength: 1, maxLength: 40 }).filter((t) => t.trim() !== ''),
    x: fc.integer({ min: 0, max: 600 }),
    baseline: fc.integer({ min: 0, max: 60 }).map((n) => n * 13),
    size: fc.constantFrom(8, 10, 14),
  });
  fc.assert(
    fc.property(fc.array(some, { maxLength: 60 }), fc.constantFrom(Infinity, 780), (made, height) => {
      const runs = made.map((one) => ({ ...one, width: one.text.length * one.size * 0.45 }));
      const letters = (text: string): string => [...text.replace(/\s/g, '')].sort().join('');
      expect(
        letters(
          readingOrder(runs, height)
            .map((s) => s.text)
            .join(''),
        ),
      ).toBe(letters(runs.map((r) => r.text).join('')));
    }),
    { numRuns: 300 },
  );
});

test('prose beside short words in one band is read line by line', () => {
  const prose = Array.from({ length: 6 }, (_, n) => run(`A long line of prose, number ${n}`, 10, 10 + 12 * n));
  const words = Array.from({ length: 6 }, (_, n) => run(`a${n}`, 400, 10 + 12 * n));
  const more = Array.from({ length: 4 }, (_, n) => run(`Another long line ${n}`, 396, 100 + 12 * n));
  const left = Array.from({ length: 4 }, (_, n) => run('b', 10, 100 + 12 * n));
  expect(readingOrder([...prose, ...words, ...more, ...left])).toHaveLength(20);
});
