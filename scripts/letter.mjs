// `npm run letter -- ADDRESS`: has the demo's newsletter delivered to an address of the running demo.
import { build } from './prepare.mjs';

build();
await import('../server/dist/letter.js');
