// `npm test`: installs what is missing, then lint, types, unit and browser tests. Ends with one line over all of them.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { build, debian, install } from './prepare.mjs';

install();
const total = { passed: 0, failed: 0 };
const add = (name, passed, failed) => {
  total.passed += passed;
  total.failed += failed;
  console.log(`${name}: ${passed} passed, ${failed} failed`);
};
const step = (command, args) => spawnSync(command, args, { stdio: 'inherit' }).status === 0;
const beside = (command, args) =>
  new Promise((done) =>
    spawn(command, args, { stdio: 'inherit' })
      .on('close', (code) => done(code === 0))
      .on('error', () => done(false)),
  );
const readJson = (file) => (fs.existsSync(file) ? JSON.parse(fs.readFileSync(file, 'utf8')) : undefined);

fs.mkdirSync('test-results', { recursive: true });
// Side by side: each uses one core.
const [lint, types] = await Promise.all([
  beside('npm', ['run', '--silent', 'lint']),
  beside('npx', ['tsc', '--noEmit', '-p', 'tsconfig.json']),
]);
add('lint', Number(lint), Number(!lint));
add('types', Number(types), Number(!types));

// Programs of others that some checks are made against; without them those are skipped by name.
for (const [program, name] of [
  ['pdftotext', 'poppler-utils'],
  ['epubcheck', 'epubcheck'],
])
  debian(program, name);

const unitFile = 'test-results/unit.json';
fs.rmSync(unitFile, { force: true });
const unitRan = step('node', [
  '--experimental-vm-modules',
  '--no-warnings',
  'node_modules/jest/bin/jest.js',
  '--json',
  `--outputFile=${unitFile}`,
  '--reporters=default',
  '--maxWorkers=100%',
]);
const unit = readJson(unitFile);
add(
  'unit',
  unit?.numPassedTests ?? 0,
  (unit?.numFailedTests ?? 0) + (unit?.numRuntimeErrorTestSuites ?? 0) + (unit || unitRan ? 0 : 1),
);

build();
if (debian('chromium', 'chromium')) {
  const browserFile = 'test-results/browser.json';
  fs.rmSync(browserFile, { force: true });
  const ran = step('npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts']);
  const stats = readJson(browserFile)?.stats;
  add('browser', (stats?.expected ?? 0) + (stats?.flaky ?? 0), (stats?.unexpected ?? 0) + (stats || ran ? 0 : 1));
} else {
  add('browser', 0, 1);
}

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
