import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { PORT } from './constants';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const NAMES = `saltmere.test=127.0.0.1:${PORT + 1}`;
let folder: string;
test.beforeAll(() => { folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-cli-')); });
test.afterAll(() => fs.rmSync(folder, { recursive: true }));

/** The command line as an administrator runs it; settings come in through the environment. */
const avrelle = (args: string[], env: Record<string, string> = {}) => spawnSync('node', ['server/dist/cli.js', ...args], { cwd: ROOT, encoding: 'utf8', env: { ...process.env, ...env } });
const read = (dir: string, name: string): string => fs.readFileSync(path.join(dir, name), 'utf8');

test('keep writes a snapshot that needs nothing beside it, its stream, its outline and what is known of it', () => {
  const out = path.join(folder, 'kept');
  const { status, stderr } = avrelle(['keep', 'http://creek.saltmere.test/five-drawings', '--out', out], { AVRELLE_NAMES: NAMES });
  expect([status, stderr]).toEqual([0, '']);
  const snapshot = read(out, 'snapshot.html'), stream = read(out, 'stream.txt');
  const outline = JSON.parse(read(out, 'outline.json')) as { start: number; end: number; role: string }[];
  expect(snapshot.match(/src="data:image\/svg\+xml;base64,/g)).toHaveLength(5);
  expect(snapshot).not.toMatch(/src="(?!data:)|<script|asset\//);
  expect(outline.filter((b) => b.role === 'heading').map((b) => stream.slice(b.start, b.end))).toEqual(['Five Drawings of a Creek', 'Low water', 'The first water', 'Bank full', 'High water', 'The ebb']);
  expect(JSON.parse(read(out, 'meta.json'))).toMatchObject({ title: 'Five Drawings of a Creek', author: 'Lettice Marl', language: 'en', address: 'http://creek.saltmere.test/five-drawings', missing: [] });
  expect(avrelle(['stream', path.join(out, 'snapshot.html')]).stdout).toBe(stream);
});

test('what cannot be done is said in words, with a status of its own, and writes nothing', () => {
  const out = path.join(folder, 'nothing');
  for (const [args, words] of [
    [['keep', 'http://trouble.saltmere.test/loop', '--out', out], /redirected more than 8 times/],
    [['keep', 'http://127.0.0.1/', '--out', out], /inside a private network/],
    [['keep', path.join(folder, 'none.html'), '--out', out], /cannot be read \(ENOENT\)/],
    [['stream'], /is not a command/],
    [['backup', path.join(folder, 'b.db')], /There is no database at/],
    [[], /Usage:/],
  ] as const) {
    const { status, stderr } = avrelle([...args], { AVRELLE_NAMES: NAMES, AVRELLE_DATA: path.join(folder, 'absent.db') });
    expect([args, status === 0, words.test(stderr)]).toEqual([args, false, true]);
  }
  expect(fs.existsSync(out)).toBe(false);
});

test('the running demo is backed up by one command', () => {
  const copy = path.join(folder, 'copy.db');
  expect(avrelle(['backup', copy], { AVRELLE_DATA: 'var/e2e.db' }).status).toBe(0);
  expect(fs.statSync(copy).size).toBeGreaterThan(100_000);
  expect(avrelle(['backup', copy], { AVRELLE_DATA: 'var/e2e.db' }).stderr).toContain('nothing was overwritten');
});
