import { expect, test } from '@jest/globals';
import { PageSaver, type Saving, type Sent, type StoredPage } from './page-saver';

/** A server that holds one page, and answers when it is let. */
function server() {
  let page: StoredPage = { text: '', version: 0 };
  const kept: (StoredPage | undefined)[] = [];
  const told: Saving[] = [];
  const waiting: (() => void)[] = [];
  let lost = 0;
  const answer = (asked: StoredPage): Sent => {
    if (asked.version !== page.version) return { type: 'stale', theirs: page };
    page = { text: asked.text, version: page.version + 1 };
    if (lost > 0) return ((lost -= 1), { type: 'failed', offline: true, words: 'The server cannot be reached.' });
    return { type: 'stored', page };
  };
  const send = (asked: StoredPage): Promise<Sent> =>
    new Promise((resolve) => void waiting.push(() => resolve(answer(asked))));
  const saver = new PageSaver(page, { send, keep: (k) => void kept.push(k) });
  saver.watcher = (t) => void told.push(t);
  return {
    told,
    kept,
    saver,
    page: () => page,
    others: (text: string) => void (page = { text, version: page.version + 1 }),
    losesAnswers: (n: number) => void (lost = n),
    /** Answers what waits, in its order, until nothing does. */
    async answers(): Promise<void> {
      for (let n = 0; n < 20; n++) {
        waiting.shift()?.();
        await new Promise(setImmediate);
      }
    },
  };
}

test('a page typed faster than it is saved never conflicts with itself, and ends as typed last', async () => {
  const { saver, answers, page, told, kept } = server();
  for (const text of ['m', 'mu', 'mud']) {
    saver.write(text);
    void saver.save();
  }
  await answers();
  expect(page().text).toBe('mud');
  expect(told.some((t) => t.type === 'conflict')).toBe(false);
  expect(told.at(-1)).toEqual({ type: 'saved' });
  expect(kept.at(-1)).toBeUndefined();
});

test('what another window wrote is shown, and one’s own is sent when it is said so', async () => {
  const { saver, answers, page, told, others, kept } = server();
  others('theirs');
  saver.write('mine');
  void saver.save();
  await answers();
  expect(told.at(-1)).toEqual({ type: 'conflict', theirs: { text: 'theirs', version: 1 } });
  saver.write('mine and theirs');
  void saver.save();
  await answers();
  expect(page().text).toBe('theirs');
  expect(kept.at(-1)?.text).toBe('mine and theirs');
  void saver.keepMine();
  await answers();
  expect(page().text).toBe('mine and theirs');
});

test('an answer that was lost is no conflict', async () => {
  const { saver, answers, page, told, losesAnswers } = server();
  losesAnswers(1);
  saver.write('mud');
  void saver.save();
  await answers();
  expect(told.at(-1)).toMatchObject({ type: 'failed', offline: true });
  void saver.save();
  await answers();
  expect(told.at(-1)).toEqual({ type: 'saved' });
  expect(page()).toEqual({ text: 'mud', version: 1 });
});

test('left while it is being stored, it is taken up again by whoever comes back, and ends as typed last', async () => {
  const { saver, answers, page, told } = server();
  saver.write('mud');
  void saver.save();
  saver.watcher = undefined;
  expect(saver.settled).toBe(false);
  // Somebody comes back before the answer.
  saver.watcher = (t) => void told.push(t);
  saver.write(`${saver.text} holds`);
  void saver.save();
  await answers();
  expect([page().text, told.at(-1), saver.settled]).toEqual(['mud holds', { type: 'saved' }, true]);
});
