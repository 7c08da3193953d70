import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const MAY_IMPORT: Readonly<Record<string, readonly string[]>> = {
  core: [],
  server: ['core'],
  web: ['core'],
  standins: [],
};

function files(folder: string): string[] {
  return fs
    .readdirSync(path.join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .map((f) => path.join(folder, f))
    .filter((f) => /\.tsx?$/.test(f) && !/node_modules|\/dist\/|\.test\.ts$|\/testing\//.test(f));
}

const importsOf = (file: string): string[] =>
  [...fs.readFileSync(path.join(ROOT, file), 'utf8').matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)].map((m) => m[1]!);

/** The workspace an import leads to; undefined when it leads out of the repository. */
function workspaceOf(file: string, target: string): string | undefined {
  if (target.startsWith('@avrelle/')) return target.split('/')[1];
  return target.startsWith('.') ? path.normalize(path.join(path.dirname(file), target)).split(path.sep)[0] : undefined;
}

test.each(Object.keys(MAY_IMPORT))('%s imports only what it may', (folder) => {
  const checked = files(folder);
  expect(checked.length).toBeGreaterThan(1);
  const wrong = checked.flatMap((file) =>
    importsOf(file)
      .filter((target) => {
        const to = workspaceOf(file, target);
        return to !== undefined && to !== folder && !MAY_IMPORT[folder]!.includes(to);
      })
      .map((target) => `${file} → ${target}`),
  );
  expect(wrong).toEqual([]);
});

test('core uses nothing of a host: no DOM, no Node, no clock, no randomness', () => {
  const forbidden =
    /\b(document|window|navigator|localStorage|process|Buffer|require|setTimeout|setInterval|fetch|performance|globalThis)\b[.([]|Date\.now|new Date\(\s*\)|Math\.random|crypto\.|from 'node:/;
  const wrong = files('core').flatMap((file) =>
    fs
      .readFileSync(path.join(ROOT, file), 'utf8')
      .split('\n')
      .flatMap((line, n) =>
        forbidden.test(line.replace(/\/\/.*|\/?\*.*$/g, '')) ? [`${file}:${n + 1} ${line.trim()}`] : [],
      ),
  );
  expect(wrong).toEqual([]);
});

test('SQL stands in queries files and the database folder alone', () => {
  const wrong = files('server').filter(
    (f) =>
      !/queries\.ts$|server\/db\//.test(f) &&
      /['"`](SELECT|INSERT INTO|UPDATE|DELETE FROM) /.test(fs.readFileSync(path.join(ROOT, f), 'utf8')),
  );
  expect(wrong).toEqual([]);
});

/** The file an import leads to; undefined when it leads out of the repository. */
function fileOf(file: string, target: string, known: ReadonlySet<string>): string | undefined {
  const base = target.startsWith('@avrelle/')
    ? `${target.slice('@avrelle/'.length)}/index`
    : path.normalize(path.join(path.dirname(file), target));
  return ['', '.ts', '.tsx', '/index.ts'].map((ending) => base + ending).find((f) => known.has(f));
}

test('no file imports itself by way of others, not even its types', () => {
  const all = [...Object.keys(MAY_IMPORT), 'demo', 'bench', 'e2e'].flatMap(files);
  const known = new Set(all);
  const leads = new Map(
    all.map((file) => [file, new Set(importsOf(file).flatMap((target) => fileOf(file, target, known) ?? []))]),
  );
  // What imports only what is left out is in no circle, and is left out in turn.
  for (let before = -1; before !== leads.size;) {
    before = leads.size;
    for (const [file, to] of leads) if (![...to].some((f) => leads.has(f))) leads.delete(file);
  }
  expect([...leads.keys()]).toEqual([]);
  expect(all.length).toBeGreaterThan(400);
});
