import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Sent, StoredPage } from '../data/page-saver';
import { NoteSaver, type NoteDraft } from './note-saver';

/** A server with one note, which other windows write, too. */
class Stored {
  page: StoredPage = { text: 'One.\n\nTwo.', version: 1 };
  reached = true;
  put({ text, version }: StoredPage): Sent {
    if (!this.reached) return { type: 'failed', offline: true, words: 'No connection' };
    if (version !== this.page.version) return { type: 'stale', theirs: this.page };
    this.page = { text, version: version + 1 };
    return { type: 'stored', page: this.page };
  }
}

/** A window in which the note is written; `answer` lets the server answer. */
function open(server: Stored, begun?: NoteDraft) {
  const waiting: (() => void)[] = [];
  const window = { shown: begun?.mine ?? server.page.text, dirty: false, draft: begun, waiting };
  const saver = new NoteSaver(server.page, begun, {
    send: (page) => new Promise((done) => waiting.push(() => done(server.put(page)))),
    keep: (draft) => (window.draft = draft),
  });
  window.shown = saver.text;
  saver.editing = {
    read: () => (window.dirty ? ((window.dirty = false), window.shown) : undefined),
    show: (text) => (window.shown = text),
  };
  const write = (text: string): void => {
    window.shown = text;
    window.dirty = true;
  };
  const answer = async (): Promise<void> => {
    waiting.shift()?.();
    await new Promise((done) => setImmediate(done));
  };
  return { saver, window, write, answer };
}

test('two windows write in it at once: both stand there, in both', async () => {
  const server = new Stored();
  const [a, b] = [open(server), open(server)];
  a.write('One.\n\nMiddle.\n\nTwo.');
  b.write('One.\n\nTwo.\n\nThree.');
  void a.saver.save();
  void b.saver.save();
  await a.answer();
  await b.answer();
  await b.answer();
  a.saver.take(server.page);
  const both = 'One.\n\nMiddle.\n\nTwo.\n\nThree.';
  expect([server.page.text, a.window.shown, b.window.shown, a.saver.settled, b.saver.settled]).toEqual([
    ...[both, both, both],
    ...[true, true],
  ]);
  expect([a.window.draft, b.window.draft]).toEqual([undefined, undefined]);
});

test('what is typed while the server answers is neither lost nor written over by what it follows', async () => {
  const server = new Stored();
  const a = open(server);
  a.write('One more.\n\nTwo.');
  void a.saver.save();
  a.write('One more thing.\n\nTwo.');
  server.page = { text: 'One.\n\nTwo.\n\n> joined', version: 2 };
  await a.answer();
  await a.answer();
  await a.answer();
  expect([server.page.text, a.window.shown]).toEqual([
    'One more thing.\n\nTwo.\n\n> joined',
    'One more thing.\n\nTwo.\n\n> joined',
  ]);
});

test('without a connection it is kept here, and sent by the next window upon what came meanwhile', async () => {
  const server = new Stored();
  const a = open(server);
  server.reached = false;
  a.write('One.\n\nOffline.\n\nTwo.');
  void a.saver.save();
  await a.answer();
  expect([a.saver.saving, a.window.draft?.mine]).toEqual([
    { type: 'failed', offline: true, words: 'No connection' },
    'One.\n\nOffline.\n\nTwo.',
  ]);
  server.reached = true;
  server.page = { text: 'One.\n\nTwo.\n\nThree.', version: 2 };
  const next = open(server, a.window.draft);
  expect(next.window.shown).toBe('One.\n\nOffline.\n\nTwo.\n\nThree.');
  void next.saver.save();
  await next.answer();
  expect([server.page.text, next.window.draft, next.saver.settled]).toEqual([
    'One.\n\nOffline.\n\nTwo.\n\nThree.',
    undefined,
    true,
  ]);
});

test('whatever two windows write, however slowly they are answered, every word is there in both', async () => {
  const steps = fc.array(fc.tuple(fc.constantFrom('write', 'save', 'answer', 'hear'), fc.nat(1), fc.nat(5)), {
    maxLength: 25,
  });
  await fc.assert(
    fc.asyncProperty(steps, async (all) => {
      const server = new Stored();
      const windows = [open(server), open(server)];
      const written: string[] = [];
      for (const [n, [what, who, at]] of all.entries()) {
        const { window, write, saver, answer } = windows[who]!;
        if (what === 'write') {
          const blocks = window.shown.split('\n\n');
          blocks.splice(at, 0, `word${n}`);
          written.push(`word${n}`);
          write(blocks.join('\n\n'));
        } else if (what === 'save') void saver.save();
        else if (what === 'hear') saver.take(server.page);
        else await answer();
      }
      for (let n = 0; n < 12; n++)
        for (const { saver, answer } of windows) {
          void saver.save();
          await answer();
          saver.take(server.page);
        }
      expect(windows.map(({ window }) => window.shown)).toEqual([server.page.text, server.page.text]);
      for (const word of written) expect(server.page.text.split('\n\n').filter((w) => w === word)).toEqual([word]);
    }),
    { numRuns: 100 },
  );
});
