// `npm test`: installs what is missing, then lint, types, unit and browser tests. Ends with one line over all of them.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { build, debian, install } from './prepare.mjs';

install();
const total = { passed: 0, failed: 0 };
/** Browser tests that may pass the second time only: a machine that stands still for half a minute fails a test that is right. */
const MOST_FLAKY = 1;
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
/** What ended badly, or with nothing to show, and names no test for it, has failed once itself. */
const notRun = (ran, failed) => Number(!ran && failed === 0);
const readJson = (file) => (fs.existsSync(file) ? JSON.parse(fs.readFileSync(file, 'utf8')) : undefined);

fs.mkdirSync('test-results', { recursive: true });
// Side by side: the rules that know types take one core for as long as all the others take together.
const [rules, others] = await Promise.all([
  beside('npx', ['eslint', '.']),
  (async () => ({
    types: await beside('npx', ['tsc', '--noEmit', '-p', 'tsconfig.json']),
    layout: await beside('npx', ['prettier', '--check', '--log-level', 'warn', '.']),
    unused: await beside('npx', ['knip', '--no-config-hints']),
  }))(),
]);
for (const [name, passed] of Object.entries({ lint: rules, ...others })) add(name, Number(passed), Number(!passed));

// Programs of others that some checks are made against; without them those are skipped by name.
for (const [program, name] of [
  ['pdftotext', 'poppler-utils'],
  ['epubcheck', 'epubcheck'],
  ['nltk', 'python3-nltk'],
  ['firefox-esr', 'firefox-esr'],
  ['WebKitWebDriver', 'webkit2gtk-driver'],
  ['Xvfb', 'xvfb'],
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
const unitFailed = (unit?.numFailedTests ?? 0) + (unit?.numRuntimeErrorTestSuites ?? 0);
add('unit', unit?.numPassedTests ?? 0, unitFailed + notRun(unitRan, unitFailed));

build();
if (debian('chromium', 'chromium')) {
  const browserFile = 'test-results/browser.json';
  fs.rmSync(browserFile, { force: true });
  const ran = step('npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts']);
  const stats = readJson(browserFile)?.stats;
  const { expected = 0, flaky = 0, unexpected = 0 } = stats ?? {};
  add('browser', expected + flaky, unexpected + notRun(ran && expected > 0, unexpected));
  console.log(`browser, passed only the second time: ${flaky} (at most ${MOST_FLAKY})`);
  if (flaky > MOST_FLAKY) add('more flaky browser tests than there may be', 0, 1);
} else {
  add('browser', 0, 1);
}

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
