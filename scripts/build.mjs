// Builds the web application, the server with its worker and command line, and the demo; then checks the size of what a reader loads first.
import fs from 'node:fs';
import path from 'node:path';
import zlib from 'node:zlib';
import { build } from 'esbuild';
import { build as buildWeb } from 'vite';
import { ROOT } from './prepare.mjs';

const FIRST_LOAD_LIMIT = 180 * 1024;

const { dependencies } = JSON.parse(fs.readFileSync(path.join(ROOT, 'server/package.json'), 'utf8'));
const core = JSON.parse(fs.readFileSync(path.join(ROOT, 'core/package.json'), 'utf8')).dependencies;
await build({
  entryPoints: {
    main: 'server/main.ts',
    cli: 'server/cli.ts',
    'ingest-worker': 'server/ingest/worker.ts',
    demo: 'demo/main.ts',
    letter: 'demo/send-letter.ts',
  },
  outdir: 'server/dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  external: [...Object.keys(dependencies), ...Object.keys(core), 'nodemailer', 'node:*'],
  absWorkingDir: ROOT,
});
fs.cpSync(path.join(ROOT, 'server/db/migrations'), path.join(ROOT, 'server/dist/migrations'), { recursive: true });

await buildWeb({ root: path.join(ROOT, 'web'), logLevel: 'warn' });

// What the PDF library fetches as it needs it: character maps, standard fonts, decoders.
for (const part of ['cmaps', 'standard_fonts', 'wasm'])
  fs.cpSync(path.join(ROOT, 'node_modules/pdfjs-dist', part), path.join(ROOT, 'web/dist/pdf', part), {
    recursive: true,
  });

// Sent as they lie: a school's line is the slowest part of the way.
const assets = path.join(ROOT, 'web/dist/assets');
for (const name of fs.readdirSync(assets).filter((file) => /\.(js|css|wasm)$/.test(file)))
  fs.writeFileSync(
    path.join(assets, `${name}.gz`),
    zlib.gzipSync(fs.readFileSync(path.join(assets, name)), { level: 9 }),
  );

/** The scripts a visit to the Library loads: the entry with all it imports at once, and the Library's own chunk. */
const manifest = JSON.parse(fs.readFileSync(path.join(ROOT, 'web/dist/.vite/manifest.json'), 'utf8'));
const wanted = new Set();
const collect = (key) => {
  if (wanted.has(key)) return;
  wanted.add(key);
  for (const next of manifest[key].imports ?? []) collect(next);
};
collect('index.html');
collect('library/LibraryPage.tsx');
const size = [...wanted].reduce(
  (sum, key) => sum + zlib.gzipSync(fs.readFileSync(path.join(ROOT, 'web/dist', manifest[key].file))).length,
  0,
);
console.error(
  `First JavaScript for the Library: ${(size / 1024).toFixed(1)} kB gzipped (limit ${FIRST_LOAD_LIMIT / 1024}).`,
);
if (size > FIRST_LOAD_LIMIT) process.exit(1);
