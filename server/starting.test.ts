import { expect, test } from '@jest/globals';
import Fastify from 'fastify';
import { listen, wordsForStart } from './starting';

const config = { port: 4800, host: '127.0.0.1', dataFile: 'var/a.db' };

test('a port that is taken is said, with the setting; the demo goes on to the next', async () => {
  const first = Fastify();
  const second = Fastify();
  const third = Fastify();
  const port = await listen(first, { port: 0, host: '127.0.0.1' });
  const error = await listen(second, { port, host: '127.0.0.1' }).catch((e: unknown) => e);
  expect(wordsForStart(error, { ...config, port })).toMatch(new RegExp(`Port ${port} is in use already.*AVRELLE_PORT`));
  expect(await listen(third, { port, host: '127.0.0.1' }, 20)).toBeGreaterThan(port);
  await Promise.all([first, second, third].map((app) => app.close()));
});

test.each([
  ['SQLITE_CANTOPEN', /AVRELLE_DATA/],
  ['SQLITE_NOTADB', /restore a backup/],
  ['SQLITE_BUSY', /Another program holds/],
  ['EADDRNOTAVAIL', /AVRELLE_HOST/],
  ['EROFS', /writable/],
])('%s names the setting that changes it', (code, words) => {
  expect(wordsForStart(Object.assign(new Error('x'), { code }), config)).toMatch(words);
});
