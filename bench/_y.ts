import { mainText } from '@avrelle/core/text';
import fs from 'node:fs';
import { ingest } from '../server/ingest/ingest';
async function main() {
  for (const f of fs.readFileSync('/tmp/list','utf8').trim().split('\n')) {
    const t = performance.now();
    try { const k = await ingest({ type: 'file', name: f.split('/').pop()!, bytes: fs.readFileSync(f) }, { names: [], privateHosts: [] } as never);
      const m = mainText(k.text, k.outline).length; console.log(f.split('/').slice(-3).join('/'), k.text.length, m, (m/k.text.length*100).toFixed(1), (performance.now()-t)|0);
    } catch (e) { console.log(f, 'ERR', String(e).slice(0,80)); }
  }
}
void main();
