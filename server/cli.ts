import fs from 'node:fs/promises';
import path from 'node:path';
import { agreement } from '@avrelle/core/class';
import { merge } from '@avrelle/core/study';
import { readTree } from '@avrelle/core/text';
import { readUnits } from './agreement-file';
import { anchorCases } from './anchor-cases';
import { readConfig } from './config';
import { backup, restore } from './db/backup';
import { AppError } from './errors';
import type { IngestInput } from './ingest/ingested';
import { ingest } from './ingest/ingest';
import { oneFile } from './ingest/one-file';
import { asTextTree } from './ingest/light-tree';
import { parseHtml } from './ingest/parse-html';

const USAGE = `Usage: npm run --silent avrelle -- VERB
  keep FILE-or-ADDRESS --out DIR   writes snapshot.html, stream.txt, outline.json and meta.json
  stream FILE.html                 prints the text stream of an HTML file
  anchor CASES.json RESULTS.json   finds spans of former texts in present ones (docs/formats.md)
  agreement FILE.json              prints how far readers agree, corrected for chance (docs/formats.md)
  merge BASE.md MINE.md THEIRS.md  prints one note made of two; exits 1 where something stands in it twice, marked
  backup FILE                      copies the whole database to FILE, also while the server runs
  restore FILE                     replaces the database's content by a backup's, also while the server runs`;

/** The command line for administrators. Settings are those of the server (docs/operations.md). */
async function main(args: readonly string[]): Promise<void> {
  const [verb = '', target, second] = args;
  const run = Object.hasOwn(COMMANDS, verb) ? COMMANDS[verb] : undefined;
  const done = target === undefined ? undefined : run?.(target, second, args);
  if (!done) throw new Error(verb ? `"${args.join(' ')}" is not a command.\n${USAGE}` : USAGE);
  await done;
}

/** Of each verb what it does; undefined where it wants more than it was given. */
const COMMANDS: Readonly<
  Record<string, (target: string, second: string | undefined, args: readonly string[]) => Promise<void> | undefined>
> = {
  keep: (target, _, args) => {
    const out = args.includes('--out') ? args[args.indexOf('--out') + 1] : undefined;
    return out ? keep(target, out) : undefined;
  },
  stream: printStream,
  anchor: (target, second) => (second ? printAnchors(target, second) : undefined),
  agreement: async (target) => console.log(JSON.stringify(agreement(await readUnits(target)))),
  merge: (target, second, [, , , third]) => (second && third ? printMerged(target, second, third) : undefined),
  backup: (target) => backup(readConfig(process.env).dataFile, target),
  restore: (target) => restore(readConfig(process.env).dataFile, target),
};

async function printAnchors(before: string, after: string): Promise<void> {
  console.log(JSON.stringify(await anchorCases(before, after)));
}

async function printMerged(...files: readonly [base: string, mine: string, theirs: string]): Promise<void> {
  const [base, mine, theirs] = await Promise.all(files.map(readText));
  const { markdown, twice } = merge(base!, mine!, theirs!);
  process.stdout.write(markdown);
  if (twice > 0) process.exitCode = 1;
}

async function readText(file: string): Promise<string> {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(await readFile(file));
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    throw new Error(`${file} is not text in UTF-8: save it as UTF-8 and try again.`, { cause: error });
  }
}

async function keep(target: string, out: string): Promise<void> {
  const input: IngestInput = /^[a-z][a-z0-9+.-]*:\/\//i.test(target)
    ? { type: 'address', address: target }
    : { type: 'file', name: path.basename(target), bytes: await readFile(target) };
  const kept = await ingest(input, readConfig(process.env));
  const meta = {
    ...kept.meta,
    kind: kept.kind,
    address: kept.address,
    canonical: kept.canonical,
    minutes: kept.minutes,
    missing: kept.missing,
    keptAt: new Date().toISOString(),
  };
  await fs.mkdir(out, { recursive: true });
  await Promise.all([
    fs.writeFile(path.join(out, 'snapshot.html'), oneFile(kept.snapshot, kept.assets)),
    fs.writeFile(path.join(out, 'stream.txt'), kept.text),
    fs.writeFile(path.join(out, 'outline.json'), JSON.stringify(kept.outline, null, 1)),
    fs.writeFile(path.join(out, 'meta.json'), JSON.stringify(meta, null, 2)),
  ]);
}

async function printStream(file: string): Promise<void> {
  process.stdout.write(readTree(asTextTree(parseHtml(await readFile(file), 'https://file.invalid/'))).text);
}

async function readFile(file: string): Promise<Buffer> {
  return fs.readFile(file).catch((cause: NodeJS.ErrnoException) => {
    throw new Error(
      `${file} cannot be read (${cause.code}): check the path; an address begins with http:// or https://.`,
    );
  });
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof AppError || error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
});
