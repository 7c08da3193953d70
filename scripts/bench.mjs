// `npm run bench [-- NAME]`: measures against the bars of speed and size.
import { build as bundle } from 'esbuild';
import fs from 'node:fs';
import { build, debian } from './prepare.mjs';

build();
debian('chromium', 'chromium');
const { dependencies } = JSON.parse(fs.readFileSync('server/package.json', 'utf8'));
await bundle({
  entryPoints: ['bench/main.ts'],
  outfile: 'server/dist/bench.js',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  external: [...Object.keys(dependencies), 'yaml', 'pdfkit', '@playwright/test', 'esbuild', 'node:*'],
  logLevel: 'warning',
});
await import('../server/dist/bench.js');
