import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@jest/globals';
import { mainText } from '@avrelle/core/text';
import { ingest } from '../../server/ingest/ingest';
import { readTranscript } from '../../server/ingest/formats/recording';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const FILES = path.join(ROOT, 'demo/files');
const REPORT = path.join(ROOT, 'standins/web/sites/survey.saltmere.test/state-of-the-marsh-2025.pdf');
const has = (program: string): boolean => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;
const keep = (file: string) =>
  ingest({ type: 'file', name: path.basename(file), bytes: fs.readFileSync(file) }, { names: [], privateHosts: [] });
const words = (text: string): string[] =>
  text
    .replace(/\u00AD\n?/g, '')
    .replace(/-\s*\n/g, '')
    .replace(/-/g, '')
    .split(/\s+/)
    .filter(Boolean);

test('the report is read in the order it was written in, down one column and then the next', async () => {
  const { text, outline } = await keep(REPORT);
  const main = words(mainText(text, outline)).join(' ');
  const written = fs.readFileSync(path.join(ROOT, 'demo/make/texts/report.md'), 'utf8').replace(/^#+ /gm, '');
  expect(main.slice(0, main.indexOf(' Appendix: gain by line'))).toBe(words(written).join(' '));
});

// Poppler reads a part of this page after what comes behind it; its words are all there.
(has('pdftotext') ? test : test.skip)(
  'the report has the words that poppler’s pdftotext reads, each as often',
  async () => {
    const theirs = execFileSync('pdftotext', ['-enc', 'UTF-8', REPORT, '-'], { encoding: 'utf8' }).replace(
      /Saltmere College, Survey of the Marsh\s+\d+/g,
      '',
    );
    const { text, outline } = await keep(REPORT);
    expect(words(mainText(text, outline)).sort()).toEqual(words(theirs).sort());
  },
);

(has('epubcheck') && has('java') ? test : test.skip)(
  'the booklet is valid by epubcheck',
  () => {
    const program = execFileSync('sh', ['-c', 'command -v epubcheck'], { encoding: 'utf8' }).trim();
    const { status, stdout, stderr } = spawnSync('java', ['-jar', program, path.join(FILES, 'walkers-booklet.epub')], {
      encoding: 'utf8',
    });
    expect([status, `${stdout}${stderr}`]).toEqual([0, expect.stringContaining('0 fatals / 0 errors / 0 warnings')]);
  },
  60_000,
);

test('the walk’s words follow each other in time, and end with the recording', () => {
  const cues = readTranscript(fs.readFileSync(path.join(FILES, 'walk-along-the-bank.vtt'), 'utf8'), 'walk.vtt');
  expect(cues.length).toBe(15);
  expect(
    cues.every((cue, n) => cue.from < cue.to && (n === 0 || cue.from >= cues[n - 1]!.to) && cue.speaker !== ''),
  ).toBe(true);
});
