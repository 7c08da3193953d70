import fs from 'node:fs';
import path from 'node:path';
import { buildApp } from './app';
import { watchTime } from './assignments/passing-time';
import { readConfig, type Config } from './config';
import { watchFeeds } from './feeds/feed-watch';
import { removeExpired, type Orphans } from './library/remove-expired';
import { openMailDoor } from './mail/intake';
import { watchMails } from './notifications/send-digests';
import { PoolIngester } from './ingest/pool-ingester';
import { openContext } from './open-context';
import { listen, start } from './starting';

const DAY = 86_400_000;

function settings(): Config {
  try {
    return readConfig(process.env);
  } catch (error) {
    console.error((error as Error).message);
    process.exit(1);
  }
}

const config = settings();
await start(config, async () => {
  fs.mkdirSync(path.dirname(path.resolve(config.dataFile)), { recursive: true });
  const ingester = new PoolIngester(new URL('./ingest-worker.js', import.meta.url), config, config.dataFile);
  const context = openContext({ config, ingester });
  const app = await buildApp(context);
  const port = await listen(app, config);
  context.jobs.start();
  const mail =
    config.mailPort === null
      ? undefined
      : await openMailDoor(context, { port: config.mailPort, host: config.mailHost, domain: config.mailDomain });
  const stopFeeds = watchFeeds(context);
  const stopTime = watchTime(context);
  const stopMails = watchMails(context, config);
  let orphans: Orphans = new Set();
  const sweep = (): void => {
    ({ orphans } = removeExpired(context, orphans));
  };
  sweep();
  setInterval(sweep, DAY / 24).unref();
  console.log(`Avrelle is open at http://${config.host}:${port}`);

  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      stopFeeds();
      stopTime();
      stopMails();
      context.live.close();
      context.events.close();
      void mail?.close();
      void context.jobs
        .stop()
        .then(() => app.close())
        .then(() => {
          context.db.close();
          process.exit(0);
        });
    });
  }
});
