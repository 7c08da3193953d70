import fs from 'node:fs';
import path from 'node:path';
import { buildApp } from '../server/app';
import { readConfig } from '../server/config';
import { PoolIngester } from '../server/ingest/pool-ingester';
import { watchTime } from '../server/assignments/passing-time';
import { watchFeeds } from '../server/feeds/feed-watch';
import { openMailDoor } from '../server/mail/intake';
import { watchMails } from '../server/notifications/send-digests';
import { openContext } from '../server/open-context';
import { listen, wordsForStart } from '../server/starting';
import { openInbox } from '../standins/mail/inbox';
import { serveLittleWeb } from '../standins/web/serve';
import { PASSWORD, SAMPLES } from './people';
import { DemoClock } from './clock';
import { seed } from './seed';

/** Bundled to `server/dist/demo.js` and run from the repository's root. */
const WEB_PORT = Number(process.env.AVRELLE_DEMO_WEB_PORT ?? 4810);
const file = process.env.AVRELLE_DATA ?? 'var/demo.db';
const fresh = process.argv.includes('--fresh') || !fs.existsSync(file);

fs.mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
if (fresh) for (const ending of ['', '-wal', '-shm']) fs.rmSync(file + ending, { force: true });
const web = await serveLittleWeb(
  {
    sites: 'standins/web/sites',
    font: 'node_modules/@fontsource-variable/literata/files/literata-latin-wght-normal.woff2',
  },
  WEB_PORT,
);
const inbox = await openInbox({ smtp: WEB_PORT + 3, web: WEB_PORT + 4 });
const config = readConfig({
  ...process.env,
  AVRELLE_DATA: file,
  AVRELLE_NAMES: `saltmere.test=127.0.0.1:${web.port}`,
  AVRELLE_MAIL_PORT: String(WEB_PORT + 2),
  AVRELLE_MAIL_DOMAIN: 'intake.saltmere.test',
  AVRELLE_SMTP: `smtp://127.0.0.1:${inbox.smtpPort}`,
  AVRELLE_MAIL_FROM: 'Avrelle <avrelle@college.saltmere.test>',
  AVRELLE_ADDRESS: 'http://127.0.0.1',
});
const clock = new DemoClock();
const context = openContext({
  config,
  ingester: new PoolIngester(new URL('./ingest-worker.js', import.meta.url), config, config.dataFile),
  now: clock.now,
  samples: SAMPLES,
});
const app = await buildApp(context);
context.jobs.start();
const mail = await openMailDoor(context, { port: config.mailPort!, host: config.mailHost, domain: config.mailDomain });
const stopFeeds = watchFeeds(context);
if (fresh) {
  try {
    await seed(app, clock, { files: 'demo/files', web, mailPort: mail.port });
  } catch (error) {
    context.db.close();
    fs.rmSync(file, { force: true });
    throw error;
  }
}
const stopTime = watchTime(context);
const port = await listen(app, config, 20).catch((error: unknown) => {
  console.error(wordsForStart(error, config));
  process.exit(1);
});
// Known only now: another may stand where it was to be.
const stopMails = watchMails(context, { ...config, address: `http://${config.host}:${port}` });
if (port !== config.port)
  console.log(`Port ${config.port} is in use already, so the demo takes the next that is free.`);

const people = SAMPLES.map(({ email, name, about }) => `  ${email.padEnd(34)} ${name}. ${about}`);
console.log(`
Avrelle, the Saltmere College demo, is open at http://${config.host}:${port}

Choose somebody on the page to sign in, or sign in with the password "${PASSWORD}" as
${people.join('\n')}

Pages of the simulated web to keep:
  http://review.saltmere.test/marsh-that-walks-inland    http://packet.saltmere.test/who-pays
  http://studio.saltmere.test/kept-light                http://survey.saltmere.test/state-of-the-marsh-2025.pdf
  http://posts.saltmere.test/line-e                     http://packet.saltmere.test/letters (has a feed)
  http://trouble.saltmere.test/loop (and /huge, /broken, /empty, /to-private)

Mails that Avrelle sends arrive at http://127.0.0.1:${inbox.webPort} and nowhere else.
A newsletter to your own address (shown under Gather): npm run letter -- ADDRESS

Data: ${file} (start again from nothing: npm run demo -- --fresh). Ctrl+C ends it.`);

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    stopFeeds();
    stopTime();
    stopMails();
    void mail.close();
    void context.jobs
      .stop()
      .then(() => app.close())
      .then(() => Promise.all([web.close(), inbox.close()]))
      .then(() => {
        context.db.close();
        process.exit(0);
      });
  });
}
