// Shared by the commands: installs what is missing, builds what is stale. Safe to run again, quick when nothing is to do.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const STAMP = path.join(ROOT, '.avrelle-build');
process.chdir(ROOT);

/** Runs a command; its output goes to stderr, so that a verb's own output stays clean. Ends the program when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { stdio: ['ignore', 2, 2], ...options });
  if (result.status !== 0) {
    console.error(
      `"${command} ${args.join(' ')}" failed${result.status === null ? '' : ` with ${result.status}`}: see the lines above.`,
    );
    process.exit(result.status ?? 1);
  }
}

export function install() {
  const lock = path.join(ROOT, 'package-lock.json');
  const mark = path.join(ROOT, 'node_modules/.avrelle-installed');
  const wanted = createHash('sha256').update(fs.readFileSync(lock)).digest('hex');
  if (fs.existsSync(mark) && fs.readFileSync(mark, 'utf8') === wanted) return;
  // Not `npm ci`: some registries lack binaries for other platforms, and it then finds the lock file incomplete.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  // An install that was interrupted can leave the native module unbuilt, and the next one does not notice.
  const opens =
    spawnSync('node', ['-e', "new (require('better-sqlite3'))(':memory:')"], { stdio: 'ignore' }).status === 0;
  if (!opens) run('npm', ['rebuild', 'better-sqlite3', '--loglevel=error']);
  fs.writeFileSync(mark, wanted);
}

/** Installs and, when a source file changed since the last time, builds. */
export function build() {
  install();
  const now = fingerprint();
  const built = fs.existsSync('server/dist/main.js') && fs.existsSync('web/dist/index.html');
  if (built && fs.existsSync(STAMP) && fs.readFileSync(STAMP, 'utf8') === now) return;
  run('node', ['scripts/build.mjs']);
  fs.writeFileSync(STAMP, now);
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const folder of ['core', 'server', 'web', 'demo', 'standins', 'scripts']) {
    for (const file of fs.readdirSync(folder, { recursive: true }).sort()) {
      if (/(^|\/)(dist|node_modules)\//.test(`${file}/`) || !/\.(ts|tsx|mjs|css|sql|html|json|svg)$/.test(file))
        continue;
      hash.update(file).update(fs.readFileSync(path.join(folder, file)));
    }
  }
  return hash.digest('hex');
}

export const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0;

/** Whether the list of Debian's packages was fetched in this run. */
let isListFresh = false;

/** Installs a Debian package when it is missing and we may; otherwise says what to do and gives false. */
export function debian(program, name) {
  if (has(program)) return true;
  if (process.getuid?.() === 0 && has('apt-get')) {
    if (!isListFresh) spawnSync('apt-get', ['update'], { stdio: 'ignore' });
    isListFresh = true;
    const done = spawnSync('apt-get', ['install', '-y', '--no-install-recommends', name], {
      stdio: ['ignore', 2, 2],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (done.status === 0 && has(program)) return true;
  }
  console.error(`${program} is missing. Install it with: sudo apt-get install ${name}`);
  return false;
}
