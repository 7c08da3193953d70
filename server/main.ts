import fs from 'node:fs';
import path from 'node:path';
import { buildApp } from './app';
import { readConfig } from './config';
import { watchFeeds } from './feeds/feed-watch';
import { removeExpired, type Orphans } from './library/remove-expired';
import { openMailDoor } from './mail/intake';
import { PoolIngester } from './ingest/pool-ingester';
import { openContext } from './open-context';

const DAY = 86_400_000;
const config = readConfig(process.env);
fs.mkdirSync(path.dirname(path.resolve(config.dataFile)), { recursive: true });
const ingester = new PoolIngester(new URL('./ingest-worker.js', import.meta.url), config, config.dataFile);
const context = openContext({ config, ingester });
const app = await buildApp(context);
await app.listen({ port: config.port, host: config.host });
context.jobs.start();
const mail = config.mailPort === null ? undefined : await openMailDoor(context, { port: config.mailPort, host: config.mailHost, domain: config.mailDomain });
const stopFeeds = watchFeeds(context);
let orphans: Orphans = new Set();
const sweep = (): void => {
  ({ orphans } = removeExpired(context, orphans));
};
sweep();
setInterval(sweep, DAY / 24).unref();
console.log(`Avrelle is open at http://${config.host}:${(app.server.address() as { port: number }).port}`);

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    stopFeeds();
    void mail?.close();
    void context.jobs.stop().then(() => app.close()).then(() => {
      context.db.close();
      process.exit(0);
    });
  });
}
