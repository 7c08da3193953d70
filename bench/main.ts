import fs from 'node:fs';
import zlib from 'node:zlib';
import { paint } from './browser';
import { classReadings } from './class';
import { stream } from './core';
import { atMost, type Bench, type Result } from './measure';
import { fifty, longPdfs } from './gather';
import { live } from './live';
import { locate, oddTexts, places } from './places';
import { reading } from './reading';
import { handbooks, keeping } from './keeping';
import { review } from './review';
import { searching, tell, write } from './server';
import { study } from './study';
import { waiting } from './waiting';
import { walking } from './walk';

/** The scripts that a visit to the Library loads before it shows. */
const size: Bench = () => {
  const manifest = JSON.parse(fs.readFileSync('web/dist/.vite/manifest.json', 'utf8')) as Record<
    string,
    { file: string; imports?: string[] }
  >;
  const wanted = new Set<string>();
  const collect = (key: string): void => {
    if (!wanted.has(key)) {
      wanted.add(key);
      manifest[key]!.imports?.forEach(collect);
    }
  };
  collect('index.html');
  collect('library/LibraryPage.tsx');
  const bytes = [...wanted].reduce(
    (sum, key) => sum + zlib.gzipSync(fs.readFileSync(`web/dist/${manifest[key]!.file}`)).length,
    0,
  );
  return [atMost('first JavaScript for the Library, gzipped', bytes / 1024, 'kB', 180)];
};

const BENCHES: Readonly<Record<string, Bench>> = {
  stream,
  places,
  locate,
  odd: oddTexts,
  write,
  find: searching,
  tell,
  live,
  class: classReadings,
  study,
  review,
  keep: keeping,
  handbook: handbooks,
  pdf: longPdfs,
  list: fifty,
  waiting,
  paint,
  reading,
  size,
};
/** It tries, and measures nothing: only where it is asked for. */
const ASKED_FOR: Readonly<Record<string, Bench>> = { walk: walking };
const chosen = process.argv.slice(2).find((a) => !a.startsWith('-'));
const all = { ...BENCHES, ...(chosen ? ASKED_FOR : {}) };
if (chosen && !Object.hasOwn(all, chosen))
  throw new Error(`There is no benchmark "${chosen}"; there are: ${Object.keys(all).join(', ')}.`);

const results: Result[] = [];
for (const [name, bench] of Object.entries(all)) if (!chosen || chosen === name) results.push(...(await bench()));
for (const { work, value, unit, bar, holds } of results)
  console.log(
    `${work.padEnd(82)} ${`${value} ${unit}`.padStart(12)}   ${bar ? `${bar} ${holds ? 'holds' : 'FALLS SHORT'}` : ''}`,
  );
if (!chosen) fs.writeFileSync('bench/results.json', `${JSON.stringify(results, null, 2)}\n`);
