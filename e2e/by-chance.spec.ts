import fs from 'node:fs';
import { expect, test } from '@playwright/test';
import { PORT } from './constants';
import { walk } from './walk/walk';

const PAGE = 'standins/web/sites/review.saltmere.test/marsh-that-walks-inland.html';

// Tracing would run scripts in frames that allow none, and the console would tell of it.
test.use({ trace: 'off' });

/** For a minute; `npm run bench -- walk` goes on for as long as one asks. */
test('two people who do by chance what can be done lose nothing, break nothing, and can take it back', async ({
  browser,
}) => {
  const base = `http://127.0.0.1:${PORT}`;
  const walked = await walk({ browser, base, page: fs.readFileSync(PAGE), seed: 11, steps: 200, milliseconds: 60_000 });
  expect(walked.steps).toBeGreaterThan(10);
});
