import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { blocksOf, joinBlocks, merge, TWICE_MINE, TWICE_THEIRS } from './index';

const A = '0193a1b2-0000-7000-8000-00000000000a';
const B = '0193a1b2-0000-7000-8000-00000000000b';
const excerpt = (id: string, words: string): string =>
  `> ${words}\n>\n> § [Farrant 2026, ¶ 3](avrelle:annotation/${id})`;
const note = (...blocks: string[]): string => `${blocks.join('\n\n')}\n`;

describe('blocks', () => {
  test('are a note again, with front matter, lists by their depth, and excerpts by their annotation', () => {
    const list = '   - a\n     b\n   - c';
    const front = '---\ntitle: The marsh\n---';
    const written = `${front}\n\n# Marsh\ntight below\n\n${list}\n\n${excerpt(A, 'the pegs')}\n\n\n`;
    const blocks = blocksOf(written);
    expect(joinBlocks(blocks)).toBe(written);
    expect(blocks.map(({ text, annotationId }) => annotationId ?? text.split('\n')[0])).toEqual([
      '---',
      '# Marsh',
      'tight below',
      '   - a',
      A,
    ]);
  });
  test('whatever is written, they are it again', () => {
    const text = fc.array(
      fc.constantFrom(
        '# Tide',
        '- mud',
        '  - silt',
        'words ',
        '> said',
        '```',
        '---',
        '',
        '\t',
        '| a | b |',
        '1. x',
        '<b>',
      ),
      { maxLength: 14 },
    );
    fc.assert(
      fc.property(text, (lines) => {
        const written = lines.join('\n');
        fc.pre(written.trim() !== '');
        expect(joinBlocks(blocksOf(written))).toBe(written);
      }),
    );
  });
});

describe('what was written in two places', () => {
  const base = note('# Retreat', 'The sea rises by a little under four.', excerpt(A, 'the pegs rose'), 'The end.');
  test('stands together: added blocks, rewritten words, and an excerpt that came meanwhile', () => {
    const mine = note(
      '# Managed retreat',
      'The sea rises by a little under four.',
      excerpt(A, 'the pegs rose'),
      'The end.',
      'And after.',
    );
    const theirs = note(
      '# Retreat',
      'The sea rises each year by a little under four.',
      excerpt(A, 'the pegs rose'),
      excerpt(B, 'the gauge'),
      'The end.',
    );
    expect(merge(base, mine, theirs)).toEqual({
      twice: 0,
      markdown: note(
        '# Managed retreat',
        'The sea rises each year by a little under four.',
        excerpt(A, 'the pegs rose'),
        excerpt(B, 'the gauge'),
        'The end.',
        'And after.',
      ),
    });
  });
  test('of one paragraph, both changes stand where they do not meet', () => {
    expect(
      merge(
        'The gauge rose by 117 mm in thirty years.',
        'The gauge rose by 117 mm in 30 years.',
        'The old gauge rose by 117 mm in thirty years.',
      ).markdown,
    ).toBe('The old gauge rose by 117 mm in 30 years.');
  });
  test('where they meet, both stand, marked', () => {
    const { markdown, twice } = merge(
      note('The gap is small.', 'On.'),
      note('The gap is wide.', 'On.'),
      note('The gap is closing.', 'On.'),
    );
    expect([twice, markdown]).toEqual([
      1,
      note(TWICE_MINE, 'The gap is wide.', TWICE_THEIRS, 'The gap is closing.', 'On.'),
    ]);
  });
  test('an excerpt that is moved in one and followed in the other is moved, and new', () => {
    const mine = note(excerpt(A, 'the pegs rose'), '# Retreat', 'The sea rises by a little under four.', 'The end.');
    const theirs = base.replace('the pegs rose', 'the pegs rose by 96');
    expect(merge(base, mine, theirs).markdown).toBe(mine.replace('the pegs rose', 'the pegs rose by 96'));
    expect(merge(base, theirs, mine).markdown).toBe(mine.replace('the pegs rose', 'the pegs rose by 96'));
  });
  test('a block that one deletes goes; one that the other rewrites stays', () => {
    const without = note('# Retreat', excerpt(A, 'the pegs rose'), 'The end.');
    expect(merge(base, without, base.replace('The end.', 'An end.')).markdown).toBe(
      without.replace('The end.', 'An end.'),
    );
    const rewritten = base.replace('under four', 'over three');
    expect(merge(base, without, rewritten).markdown).toBe(rewritten);
    expect(merge(base, '', rewritten).markdown).toContain('a little over three');
    expect(merge(base, rewritten, '').markdown).toContain('a little over three');
  });
  test('what both added in the same words stands once', () => {
    const both = base.replace('The end.', 'The gate costs.\n\nThe end.');
    expect(merge(base, both, both.replace('# Retreat', '# On retreat')).markdown).toBe(
      both.replace('# Retreat', '# On retreat'),
    );
  });
  test('line ends of another system are no change', () => {
    expect(
      merge(base, base.replaceAll('\n', '\r\n').replace('The end.', 'An end.'), base.replace('# R', '# On r')).markdown,
    ).toBe(base.replace('# R', '# On r').replace('The end.', 'An end.'));
  });
});

const word = fc.constantFrom('tide', 'marsh', 'gate', 'peg', 'silt', 'wall', 'gauge', 'creek', '**bold**', '$x^2$');
const block = fc.oneof(
  fc.array(word, { minLength: 1, maxLength: 6 }).map((words) => words.join(' ')),
  fc.array(word, { minLength: 1, maxLength: 3 }).map((words) => words.map((w) => `- ${w}`).join('\n')),
  word.map((w) => `# ${w}`),
  fc.tuple(fc.constantFrom(A, B), word).map(([id, words]) => excerpt(id, words)),
);
/** Three notes with words that tell where they were written. */
const three = fc
  .tuple(
    fc.array(block, { maxLength: 6 }),
    fc.array(fc.tuple(fc.nat(9), fc.nat(9), fc.constantFrom('add', 'cut', 'write', 'move')), { maxLength: 4 }),
    fc.array(fc.tuple(fc.nat(9), fc.nat(9), fc.constantFrom('add', 'cut', 'write', 'move')), { maxLength: 4 }),
  )
  .map(([base, mine, theirs]) => ({
    base: note(...base),
    mine: note(...changed(base, mine, 'mine')),
    theirs: note(...changed(base, theirs, 'theirs')),
  }));

function changed(base: readonly string[], steps: readonly (readonly [number, number, string])[], by: string): string[] {
  const blocks = [...base];
  steps.forEach(([at, to, what], n) => {
    const from = at % (blocks.length || 1);
    if (what === 'add') blocks.splice(at % (blocks.length + 1), 0, `added${n}by${by} tide`);
    else if (what === 'cut') blocks.splice(from, 1);
    else if (what === 'move') blocks.splice(to % (blocks.length + 1), 0, ...blocks.splice(from, 1));
    else if (blocks[from] !== undefined)
      blocks[from] = blocks[from].replace(/(tide|marsh|gate|peg|silt)/, `$1 wrote${n}by${by}`);
  });
  return blocks;
}

const words = (text: string): string[] => text.match(/[\p{L}\p{N}]+/gu) ?? [];

describe('whatever is done', () => {
  test('no word of either is lost that the note did not have', () => {
    fc.assert(
      fc.property(three, ({ base, mine, theirs }) => {
        const old = new Set(words(base));
        const there = new Set(words(merge(base, mine, theirs).markdown));
        for (const w of [...words(mine), ...words(theirs)])
          if (!old.has(w)) expect([w, there.has(w)]).toEqual([w, true]);
      }),
      { numRuns: 1_000 },
    );
  });
  test('what only one changed is as that one has it; what both changed alike, too', () => {
    fc.assert(
      fc.property(three, ({ base, mine }) => {
        expect(
          [merge(base, mine, base), merge(base, base, mine), merge(base, mine, mine)].map((m) => m.markdown),
        ).toEqual([mine, mine, mine]);
      }),
    );
  });
  test('merging again what was merged changes nothing', () => {
    fc.assert(
      fc.property(three, ({ base, mine, theirs }) => {
        const { markdown } = merge(base, mine, theirs);
        expect(merge(theirs, markdown, theirs).markdown).toBe(markdown);
        expect(merge(mine, markdown, mine).markdown).toBe(markdown);
      }),
    );
  });
});

/** `git merge-file` (git 2.39 and later); undefined where it has a conflict. */
function byGit(base: string, mine: string, theirs: string): string | undefined {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'merge-'));
  const file = (name: string, text: string): string => {
    fs.writeFileSync(path.join(folder, name), text);
    return path.join(folder, name);
  };
  try {
    const files = [file('mine', mine), file('base', base), file('theirs', theirs)];
    return execFileSync('git', ['merge-file', '-p', '-q', ...files], { encoding: 'utf8' });
  } catch {
    return undefined;
  } finally {
    fs.rmSync(folder, { recursive: true });
  }
}

test('paragraphs of a line each come out as git merges them, where it has no conflict', () => {
  const lines = fc
    .uniqueArray(fc.nat(400), { minLength: 2, maxLength: 9 })
    .map((ns) => ns.map((n) => `line${n} the tide turns`));
  const steps = fc.array(fc.tuple(fc.nat(9), fc.constant(0), fc.constantFrom('add', 'cut', 'write')), { maxLength: 3 });
  let compared = 0;
  fc.assert(
    fc.property(lines, steps, steps, (base, mine, theirs) => {
      const [b, m, t] = [note(...base), note(...changed(base, mine, 'mine')), note(...changed(base, theirs, 'theirs'))];
      const git = byGit(b, m, t);
      if (git === undefined) return;
      compared++;
      expect(merge(b, m, t).markdown).toBe(git);
    }),
    { numRuns: 150 },
  );
  expect(compared).toBeGreaterThan(50);
});
