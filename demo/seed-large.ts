import fs from 'node:fs';
import { seeded } from '@avrelle/core/random';
import { hashPassword } from '../server/accounts/passwords';
import { readConfig } from '../server/config';
import { directIngester } from '../server/ingest/ingester';
import { openContext } from '../server/open-context';
import { LARGE, seedLarge } from './large';
import { PASSWORD } from './people';

// `npm run seed:large -- FILE`: a school after two years, in a new database file, to be looked at and measured.
const [file = 'var/large.db'] = process.argv.slice(2);
if (fs.existsSync(file)) {
  console.error(`${file} is there already. Name another file, or remove it first.`);
  process.exit(1);
}
fs.mkdirSync('var', { recursive: true });
const config = readConfig({ ...process.env, AVRELLE_DATA: file });
const context = openContext({ config, ingester: directIngester(config) });
console.log(
  `Making ${LARGE.sources.toLocaleString('en')} sources and ${LARGE.annotations.toLocaleString('en')} annotations of ${LARGE.people} people in ${file} …`,
);
seedLarge(context, LARGE, seeded(4), await hashPassword(PASSWORD));
context.db.close();
console.log(
  `Done. Open it with AVRELLE_DATA=${file} npm start, and sign in as reader1@college.saltmere.test to reader${LARGE.people}@college.saltmere.test, password “${PASSWORD}”.`,
);
