// `npm start`: a real installation. The first account made becomes the administrator's; docs/operations.md lists the settings.
import { build } from './prepare.mjs';

build();
await import('../server/dist/main.js');
