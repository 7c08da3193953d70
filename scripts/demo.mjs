// `npm run demo`: installs, builds, seeds the Saltmere College demo and serves it with its stand-ins.
import { build } from './prepare.mjs';

build();
await import('../server/dist/demo.js');
