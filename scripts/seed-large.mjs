// `npm run seed:large [-- FILE]`: a large library to be looked at and measured.
import { build as bundle } from 'esbuild';
import fs from 'node:fs';
import { build } from './prepare.mjs';

build();
const { dependencies } = JSON.parse(fs.readFileSync('server/package.json', 'utf8'));
await bundle({
  entryPoints: ['demo/seed-large.ts'],
  outfile: 'server/dist/seed-large.js',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  external: [...Object.keys(dependencies), 'yaml', 'node:*'],
  logLevel: 'warning',
});
await import('../server/dist/seed-large.js');
