import { expect, test } from '@jest/globals';
import { factCorrector, type Correctable, type Facts } from './correct-facts';

const SOURCE: Correctable = {
  id: 's',
  version: 1,
  title: 'Creek',
  author: 'I. Marl',
  site: '',
  publishedAt: null,
  language: 'en',
};

/** A server of one source, which refuses what was begun on an older version. */
function server() {
  let source = SOURCE;
  const patch = (facts: Facts): Correctable => (source = { ...source, ...facts, version: source.version + 1 });
  const correct = factCorrector({
    read: async () => {
      await new Promise(setImmediate);
      return source;
    },
    write: async (_id, { version, ...facts }) => {
      await new Promise(setImmediate);
      if (version !== source.version) throw new Error('stale');
      return patch(facts);
    },
  });
  return { correct, patch, now: () => source };
}

test('corrections made one after the other without waiting are all kept, and each can be taken back alone', async () => {
  const { correct, now } = server();
  const [first, second] = await Promise.all([
    correct(SOURCE, { title: 'A Creek' }),
    correct(SOURCE, { author: 'Ines Marl' }),
  ]);
  expect(now()).toMatchObject({ title: 'A Creek', author: 'Ines Marl' });
  await first();
  expect(now()).toMatchObject({ title: 'Creek', author: 'Ines Marl' });
  await second();
  expect(now()).toMatchObject({ title: 'Creek', author: 'I. Marl' });
});

test('what was corrected again since is not taken back', async () => {
  const { correct, patch, now } = server();
  const undo = await correct(SOURCE, { publishedAt: '2026-10' });
  patch({ publishedAt: '2026-11' });
  await expect(undo()).rejects.toThrow('corrected again');
  expect(now().publishedAt).toBe('2026-11');
});

test('a refused correction does not hold up the next', async () => {
  const { correct, patch, now } = server();
  patch({ site: 'elsewhere' });
  await expect(correct(SOURCE, { title: 'A Creek' })).rejects.toThrow('stale');
  await correct(now(), { title: 'A Creek' });
  expect(now().title).toBe('A Creek');
});
