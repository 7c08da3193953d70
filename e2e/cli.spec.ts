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
test.beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-cli-'));
});
test.afterAll(() => fs.rmSync(folder, { recursive: true }));

/** The command line as an administrator runs it; settings come in through the environment. */
const avrelle = (args: string[], env: Record<string, string> = {}) =>
  spawnSync('node', ['server/dist/cli.js', ...args], { cwd: ROOT, encoding: 'utf8', env: { ...process.env, ...env } });
const read = (dir: string, name: string): string => fs.readFileSync(path.join(dir, name), 'utf8');

test('keep writes a snapshot that needs nothing beside it, its stream, its outline and what is known of it', () => {
  const out = path.join(folder, 'kept');
  const { status, stderr } = avrelle(['keep', 'http://creek.saltmere.test/five-drawings', '--out', out], {
    AVRELLE_NAMES: NAMES,
  });
  expect([status, stderr]).toEqual([0, '']);
  const snapshot = read(out, 'snapshot.html');
  const stream = read(out, 'stream.txt');
  const outline = JSON.parse(read(out, 'outline.json')) as { start: number; end: number; role: string }[];
  expect(snapshot.match(/src="data:image\/svg\+xml;base64,/g)).toHaveLength(5);
  expect(snapshot).not.toMatch(/src="(?!data:)|<script|asset\//);
  expect(outline.filter((b) => b.role === 'heading').map((b) => stream.slice(b.start, b.end))).toEqual([
    'Five Drawings of a Creek',
    'Low water',
    'The first water',
    'Bank full',
    'High water',
    'The ebb',
  ]);
  expect(JSON.parse(read(out, 'meta.json'))).toMatchObject({
    title: 'Five Drawings of a Creek',
    author: 'Lettice Marl',
    language: 'en',
    address: 'http://creek.saltmere.test/five-drawings',
    missing: [],
  });
  expect(avrelle(['stream', path.join(out, 'snapshot.html')]).stdout).toBe(stream);
});

test('a note that was changed in two places is printed as one; what cannot be joined stands twice, and is told', () => {
  const file = (name: string, words: string): string => {
    fs.writeFileSync(path.join(folder, name), words);
    return path.join(folder, name);
  };
  const base = file('base.md', 'The gap is small.\n\nThe end.\n');
  const mine = file('mine.md', 'The gap is small.\n\nAn end.\n');
  const joined = avrelle(['merge', base, mine, file('more.md', '# Gap\n\nThe gap is small.\n\nThe end.\n')]);
  expect([joined.status, joined.stdout]).toEqual([0, '# Gap\n\nThe gap is small.\n\nAn end.\n']);
  const twice = avrelle(['merge', base, mine, file('other.md', 'The gap is small.\n\nNo end.\n')]);
  expect(twice.status).toBe(1);
  for (const words of ['An end.', 'No end.']) expect(twice.stdout).toContain(words);
  expect(avrelle(['merge', base, mine]).stderr).toContain('is not a command');
});

test('what cannot be done is said in words, with a status of its own, and writes nothing', () => {
  const out = path.join(folder, 'nothing');
  for (const [args, words] of [
    [['keep', 'http://trouble.saltmere.test/loop', '--out', out], /redirected more than 8 times/],
    [['keep', 'http://127.0.0.1/', '--out', out], /leads into a private network/],
    [['keep', path.join(folder, 'none.html'), '--out', out], /cannot be read \(ENOENT\)/],
    [['stream'], /is not a command/],
    [['backup', path.join(folder, 'b.db')], /There is no database at/],
    [[], /Usage:/],
  ] as const) {
    const { status, stderr } = avrelle([...args], {
      AVRELLE_NAMES: NAMES,
      AVRELLE_DATA: path.join(folder, 'absent.db'),
    });
    expect([args, status === 0, words.test(stderr)]).toEqual([args, false, true]);
  }
  expect(fs.existsSync(out)).toBe(false);
});

test('anchor finds spans of a former text in a present one, tells the times, and refuses what is no case', () => {
  const file = (name: string, content: unknown): string => {
    const at = path.join(folder, name);
    fs.writeFileSync(at, JSON.stringify(content));
    return at;
  };
  const before =
    'The tide turns at seven and the bell rings. Nobody waits for it on the bank. The ferry leaves with whoever is there.';
  const after = 'Listen. The tide turns at eight and the bell rings. The ferry leaves with whoever is there.';
  const span = (words: string) => ({ start: before.indexOf(words), end: before.indexOf(words) + words.length });
  const results = path.join(folder, 'results.json');
  const { status, stdout } = avrelle([
    'anchor',
    file('cases.json', [
      {
        name: 'tide',
        before,
        after,
        spans: [
          span('The tide turns at seven and the bell rings.'),
          span('Nobody waits for it on the bank.'),
          span('The ferry leaves with whoever is there.'),
        ],
      },
    ]),
    results,
  ]);
  expect([status, JSON.parse(stdout)]).toEqual([
    0,
    { spans: 3, describeMs: expect.any(Number), locateMs: expect.any(Number) },
  ]);
  expect(JSON.parse(fs.readFileSync(results, 'utf8'))).toEqual([
    [
      { state: 'edited', start: 8, end: after.indexOf(' The ferry'), confidence: expect.any(Number) },
      { state: 'lost', start: null, end: null, confidence: 0 },
      { state: 'shifted', start: after.indexOf('The ferry'), end: after.length, confidence: expect.any(Number) },
    ],
  ]);
  const refused = path.join(folder, 'refused.json');
  for (const [content, words] of [
    [
      [{ name: 'x', before: 'abc', after: 'abc', spans: [{ start: 2, end: 9 }] }],
      /Case “x”, span 0: Cannot anchor \[2, 9\): expected a non-empty range within 0..3/,
    ],
    [{ no: 'list' }, /is not a list of cases/],
    [
      [{ name: 'x', before: 'abc', after: 'abc', spans: [{ start: 'one', end: 2 }] }],
      /is not a list of cases.*spans\[0\].start/,
    ],
  ] as const) {
    const answer = avrelle(['anchor', file('bad.json', content), refused]);
    expect([answer.status === 0, words.test(answer.stderr)]).toEqual([false, true]);
  }
  expect(fs.existsSync(refused)).toBe(false);
});

test('the running demo is backed up by one command', () => {
  const copy = path.join(folder, 'copy.db');
  expect(avrelle(['backup', copy], { AVRELLE_DATA: 'var/e2e.db' }).status).toBe(0);
  expect(fs.statSync(copy).size).toBeGreaterThan(100_000);
  expect(avrelle(['backup', copy], { AVRELLE_DATA: 'var/e2e.db' }).stderr).toContain('nothing was overwritten');
});
