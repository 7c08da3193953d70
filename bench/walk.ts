import fs from 'node:fs';
import { parseArgs } from 'node:util';
import { chromium } from '@playwright/test';
import { CHROMIUM_ARGS } from '../e2e/constants';
import { walk } from '../e2e/walk/walk';
import { figure, type Bench } from './measure';
import { startWhole } from './whole-server';

const PAGE = 'standins/web/sites/review.saltmere.test/marsh-that-walks-inland.html';
/** After so many minutes the next seed begins, with people who have written nothing yet. */
const MINUTES_A_SEED = 5;

/** `npm run bench -- walk --minutes 60 --seed 1`: by chance, for as long as asked. Throws with what went wrong first. */
export const walking: Bench = async () => {
  const { values } = parseArgs({
    options: { minutes: { type: 'string', default: '5' }, seed: { type: 'string', default: '1' } },
    allowPositionals: true,
    strict: false,
  });
  const end = Date.now() + Number(values.minutes) * 60_000;
  const server = await startWhole();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  let steps = 0;
  let undone = 0;
  let seeds = 0;
  try {
    for (let seed = Number(values.seed); Date.now() < end; seed++) {
      const milliseconds = Math.min(MINUTES_A_SEED * 60_000, end - Date.now());
      const walked = await walk({
        browser,
        base: server.base,
        page: fs.readFileSync(PAGE),
        seed,
        steps: Infinity,
        milliseconds,
      });
      steps += walked.steps;
      undone += walked.undone;
      seeds += 1;
    }
  } finally {
    await browser.close();
    await server.close();
  }
  return [
    figure('steps by chance, of two people at once, without a fault', steps, 'steps'),
    figure('of them taken back, to the state before', undone, 'steps'),
    figure('different walks', seeds, 'walks'),
  ];
};
