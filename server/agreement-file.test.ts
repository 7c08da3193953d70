import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { agreement, type Values } from '@avrelle/core/class';
import { seeded } from '@avrelle/core/random';
import { readUnits } from './agreement-file';

async function written(words: string): Promise<string> {
  const file = path.join(await fs.mkdtemp(path.join(os.tmpdir(), 'units-')), 'units.json');
  await fs.writeFile(file, words);
  return file;
}

test('rows are units, columns readers; a mark of the byte order does no harm', async () => {
  const units = [['claim', null], [3, true], []];
  expect(await readUnits(await written(`\uFEFF${JSON.stringify({ units })}`))).toEqual(units);
});

test.each([
  ['{"units": [', /is not JSON/],
  ['[["a"]]', /has no list "units"/],
  ['null', /has no list "units"/],
  ['{"units": {"a": 1}}', /has no list "units"/],
  ['{"units": [["a"], "b"]}', /Unit 2 of .* is no list/],
  ['{"units": [["a", {"b": 1}]]}', /Unit 1 of .*, reader 2/],
])('%s is refused with what is wrong', async (words, wrong) => {
  await expect(written(words).then(readUnits)).rejects.toThrow(wrong);
});

test('a file that is not there is named', async () => {
  await expect(readUnits('/nowhere/units.json')).rejects.toThrow('/nowhere/units.json cannot be read (ENOENT)');
});

/** Debian's python3-nltk: its reckoning of agreement, over tables as `agreement` takes them. */
const NLTK = `
import json, sys
from nltk.metrics.agreement import AnnotationTask
said = []
for rows in json.load(sys.stdin):
    counted = [(u, row) for u, row in enumerate(rows) if sum(v is not None for v in row) > 1]
    task = AnnotationTask(data=[(str(c), str(u), v) for u, row in counted for c, v in enumerate(row) if v is not None])
    said.append([task.alpha(), task.kappa() if len(rows[0]) == 2 else None])
print(json.dumps(said))
`;
const PYTHON = '/usr/bin/python3';
const hasNltk = spawnSync(PYTHON, ['-c', 'import nltk']).status === 0;

/** Tables of two to eight readers, some who agree and some who do not, with gaps where there are more than two. */
function tables(): Values[] {
  const random = seeded(7);
  const upTo = (n: number): number => Math.floor(random() * n);
  return Array.from({ length: 120 }, () => {
    const readers = [2, 2, 3, 5, 8][upTo(5)]!;
    const kinds = ['claim', 'doubt', 'term', 'question'].slice(0, 2 + upTo(3));
    const kind = (): string => kinds[upTo(kinds.length)]!;
    const [agreed, missing] = [random(), readers > 2 ? [0, 0.2, 0.4][upTo(3)]! : 0];
    return Array.from({ length: 6 + upTo(34) }, () => {
      const most = kind();
      return Array.from({ length: readers }, () => {
        if (random() < missing) return null;
        return random() < agreed ? most : kind();
      });
    });
  });
}

(hasNltk ? test : test.skip)('α and κ are those that nltk reckons (python3-nltk 3.8), over 120 tables', () => {
  const all = tables();
  const input = JSON.stringify(all);
  const theirs = JSON.parse(execFileSync(PYTHON, ['-c', NLTK], { input, encoding: 'utf8' })) as [
    number,
    number | null,
  ][];
  for (const [n, [alpha, kappa]] of theirs.entries()) {
    const ours = agreement(all[n]!);
    expect(ours.alpha).toBeCloseTo(alpha, 12);
    if (kappa !== null) expect(ours.kappa).toBeCloseTo(kappa, 12);
  }
  expect(theirs.some(([, kappa]) => kappa !== null)).toBe(true);
});
