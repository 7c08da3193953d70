import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Annotation, AnnotationPut, Problem } from '@avrelle/core/wire';
import { ProblemError } from '../api';
import { Outbox, type Ended } from './outbox';
import { rebase } from './rebase';
import { MemoryOutbox, type OutboxStore } from './store';
import type { Entry, Write } from './write';

const problem = (code: string, status: number, more: object = {}): ProblemError =>
  new ProblemError({ type: '', title: '', detail: code, code, status, ...more } as Problem);

/** A server of annotations by the rules of the real one: versions, stale writes, writes that arrive twice. */
class Server {
  readonly rows = new Map<string, Annotation>();
  readonly log: string[] = [];
  down = false;
  /** Takes a write in and loses the answer. */
  loses = 0;
  refuses: ProblemError | undefined;

  readonly send = (write: Write): Promise<readonly Annotation[]> => {
    if (this.down) return Promise.reject(problem('offline', 0));
    if (this.refuses) return Promise.reject(this.refuses);
    try {
      const answer = this.take(write);
      if (this.loses > 0) {
        this.loses -= 1;
        return Promise.reject(problem('offline', 0));
      }
      return Promise.resolve(answer);
    } catch (error) {
      return Promise.reject(error as Error);
    }
  };

  private take(write: Write): readonly Annotation[] {
    if (write.type === 'create') {
      if (!this.rows.has(write.id)) {
        this.rows.set(write.id, annotation(write.id, { note: write.put.note, tags: write.put.tags as string[] }));
        this.log.push(`create ${write.id}`);
      }
      return [this.rows.get(write.id)!];
    }
    if (write.type !== 'change') throw new Error('not asked here');
    const stale = write.changes.find((c) => this.rows.get(c.id)?.version !== c.version);
    if (stale) throw problem('stale', 409, { current: this.rows.get(stale.id) });
    return write.changes.map(({ id, fields }) => {
      const row = this.rows.get(id)!;
      const { note = row.note, tags = row.tags } = fields;
      const after = { ...row, note, tags, version: row.version + 1 };
      this.rows.set(id, after);
      this.log.push(`change ${id} ${Object.keys(fields).join()}`);
      return after;
    });
  }
}

const annotation = (id: string, more: Partial<Annotation> = {}): Annotation =>
  ({
    id,
    version: 1,
    note: '',
    tags: [],
    classIds: [],
    kind: { code: 'claim' },
    versionId: 'v',
    anchor: null,
    place: null,
    ...more,
  }) as unknown as Annotation;
const create = (id: string, note = ''): Write => ({
  type: 'create',
  id,
  put: { note, tags: [] } as unknown as AnnotationPut,
});
const change = (id: string, version: number, note: string, before: string): Write => ({
  type: 'change',
  changes: [{ id, version, fields: { note }, before: { note: before } }],
});

function window(server: Server, store: OutboxStore, refused: Entry[] = []) {
  let keys = 0;
  const name = Math.random();
  const wakes: (() => void)[] = [];
  const announced: Ended[] = [];
  const before: Write[] = [];
  const waits: boolean[] = [];
  const outbox = new Outbox({
    store,
    send: server.send,
    newKey: () => `${name}-${(keys += 1)}`,
    alone: (work) => work(),
    announce: (ended) => announced.push(ended),
    fromBefore: ({ write }) => before.push(write),
    refused: (entry) => refused.push(entry),
    waiting: (now) => waits.push(now),
    pause: () => new Promise((wake) => wakes.push(wake)),
  });
  outbox.resume('p');
  return { outbox, announced, before, waits, wake: () => wakes.splice(0).forEach((go) => go()) };
}
const settle = (): Promise<void> => new Promise((next) => setTimeout(next, 5));

test('what waits without a connection outlives its window, and another sends it once and in order', async () => {
  const server = new Server();
  const store = new MemoryOutbox();
  const first = window(server, store);
  server.down = true;
  void first.outbox.add('s', create('a', 'one'));
  void first.outbox.add('s', change('a', 0, 'two', 'one'));
  void first.outbox.add('s', create('b'));
  void first.outbox.add('s', change('a', 0, 'three', 'two'));
  await settle();
  expect([server.log, (await store.all('p')).length]).toEqual([[], 4]);
  // The first window is gone; it never wakes.
  server.down = false;
  const next = window(server, store);
  await settle();
  expect(server.log).toEqual(['create a', 'change a note', 'create b', 'change a note']);
  expect([server.rows.get('a')!.note, await store.all('p')]).toEqual(['three', []]);
  expect(next.announced.map((e) => e.type)).toEqual(['held', 'held', 'held', 'held']);
  // Whoever shows the source is told; of what a window sends itself it has the answer.
  expect(next.before).toHaveLength(4);
  await next.outbox.add('s', create('c'));
  expect(next.before).toHaveLength(4);
});

test('a write whose answer was lost changes nothing when it is sent again', async () => {
  const server = new Server();
  const { outbox, waits, wake } = window(server, new MemoryOutbox());
  await outbox.add('s', create('a', 'one'));
  server.loses = 1;
  const sent = outbox.add('s', change('a', 1, 'two', 'one'));
  await settle();
  // Who comes again does not end what is said to wait.
  outbox.resume('p');
  expect(waits).toEqual([true]);
  wake();
  expect([await sent, server.rows.get('a')!.version, server.log]).toEqual([[], 2, ['create a', 'change a note']]);
  expect(waits).toEqual([true, false]);
});

test('a note that changed elsewhere meanwhile is not written over: the write is refused with both', async () => {
  const server = new Server();
  const refused: Entry[] = [];
  const { outbox } = window(server, new MemoryOutbox(), refused);
  server.rows.set('a', annotation('a', { note: 'theirs', version: 2 }));
  await expect(outbox.add('s', change('a', 1, 'mine', 'first'))).rejects.toMatchObject({
    problem: { code: 'stale', current: { note: 'theirs' } },
  });
  expect([server.rows.get('a')!.note, refused.map((e) => e.write)]).toEqual([
    'theirs',
    [change('a', 1, 'mine', 'first')],
  ]);
});

test('what does not touch the same is joined: another field, other tags', async () => {
  const server = new Server();
  const { outbox } = window(server, new MemoryOutbox());
  server.rows.set('a', annotation('a', { note: 'first', tags: ['old', 'theirs'], version: 2 }));
  await outbox.add('s', {
    type: 'change',
    changes: [
      { id: 'a', version: 1, fields: { note: 'mine', tags: ['new'] }, before: { note: 'first', tags: ['old'] } },
    ],
  });
  expect(server.rows.get('a')).toMatchObject({ note: 'mine', tags: ['theirs', 'new'] });
});

test('own changes follow each other, although each was begun before the one before had come back', async () => {
  const server = new Server();
  const { outbox } = window(server, new MemoryOutbox());
  server.rows.set('a', annotation('a', { note: 'zero' }));
  await Promise.all(
    [change('a', 1, 'one', 'zero'), change('a', 1, 'two', 'one'), change('a', 1, 'three', 'two')].map((write) =>
      outbox.add('s', write),
    ),
  );
  await outbox.add('s', change('a', 1, 'four', 'three'));
  expect(server.rows.get('a')).toMatchObject({ note: 'four', version: 5 });
});

test('what a refused write made is asked for no more, and the others go on', async () => {
  const server = new Server();
  const store = new MemoryOutbox();
  const refused: Entry[] = [];
  const { outbox, wake } = window(server, store, refused);
  server.down = true;
  const made = outbox.add('s', create('a', 'lost?'));
  const after = outbox.add('s', change('a', 0, 'more', 'lost?'));
  await settle();
  server.down = false;
  server.refuses = problem('not_in_class', 403);
  wake();
  await expect(made).rejects.toMatchObject({ problem: { code: 'not_in_class' } });
  server.refuses = undefined;
  expect([await after, refused.map((e) => e.write.type), await store.all('p')]).toEqual([[], ['create'], []]);
  await outbox.add('s', create('b'));
  expect([...server.rows.keys()]).toEqual(['b']);
});

test('who is signed out keeps what waits, for the next time', async () => {
  const server = new Server();
  const store = new MemoryOutbox();
  const { outbox } = window(server, store);
  server.refuses = problem('signed_out', 401);
  void outbox.add('s', create('a'));
  await settle();
  outbox.resume('somebody else');
  await settle();
  server.refuses = undefined;
  expect([server.log, (await store.all('p')).length]).toEqual([[], 1]);
  outbox.resume('p');
  await settle();
  expect(server.log).toEqual(['create a']);
});

test('joining two changes of tags loses what neither took away, whatever they are', () => {
  const tags = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'));
  fc.assert(
    fc.property(tags, tags, tags, (before, mine, theirs) => {
      const rebased = rebase({ tags: mine }, { tags: before }, annotation('x', { tags: theirs }));
      if (rebased.type !== 'fits') throw new Error('tags always fit');
      const after = new Set(rebased.fields.tags ?? theirs);
      for (const tag of ['a', 'b', 'c', 'd', 'e'] as const) {
        const [was, here, there] = [before, mine, theirs].map((list) => list.includes(tag));
        expect([tag, after.has(tag)]).toEqual([tag, here === was ? there : here]);
      }
    }),
  );
});
