import fs from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
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
