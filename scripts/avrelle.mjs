// `npm run --silent avrelle -- VERB`: the command line for administrators.
import { build } from './prepare.mjs';

build();
await import('../server/dist/cli.js');
