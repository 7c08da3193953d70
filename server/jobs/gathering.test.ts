import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Arrival, Batch, Draft, Feed, Intake, Job, SourceDetail, SourceText } from '@avrelle/core/wire';
import { sendLetter } from '../../standins/mail/send';
import type { LittleWeb } from '../../standins/web/serve';
import { checkFeed } from '../feeds/feed-watch';
import { openMailDoor } from '../mail/intake';
import { littleWeb, startServer, type Client, type Server } from '../testing/harness';
import { epub } from '../testing/files';

let server: Server;
let web: LittleWeb;
let me: Client;
let other: Client;
beforeAll(async () => {
  web = await littleWeb();
  server = await startServer({ web, env: { AVRELLE_MAIL_PORT: '0', AVRELLE_MAIL_DOMAIN: 'intake.saltmere.test' } });
  [me, other] = [await server.person('Ines'), await server.person('Cal')];
});
afterAll(async () => {
  await server.close();
  await web.close();
});

const PAPER = 'http://review.saltmere.test/marsh-that-walks-inland';
async function keep(address: string, more: object = {}, who = me): Promise<Job> {
  const id = v7();
  const { status, text } = await who.send('POST', '/api/keep', { id, address, ...more });
  if (status !== 200) throw new Error(text);
  return who.done(id);
}
const source = async (id: string | null, who = me): Promise<SourceDetail> =>
  (await who.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
const textOf = async (id: string | null): Promise<string> =>
  (await me.send<SourceText>('GET', `/api/sources/${id}/text`)).body.text;

describe('one source for one page', () => {
  test('other ways of writing its address lead to what was kept, which says when', async () => {
    const first = await keep(PAPER);
    for (const address of [
      `${PAPER}?utm_source=packet`,
      `${PAPER}/`,
      PAPER.replace('review', 'www.review'),
      `${PAPER}#three`,
      'http://trouble.saltmere.test/moved',
    ]) {
      const job = await keep(address);
      expect([address, job.already, job.sourceId]).toEqual([address, true, first.sourceId]);
      expect(job.before).toMatchObject({ sourceId: first.sourceId, title: 'The Marsh That Walks Inland', mine: 0 });
    }
    expect((await keep(PAPER, {}, other)).already).toBe(false);
  });

  test('it can be kept apart all the same; its address still leads to the first', async () => {
    const apart = await keep(PAPER, { apart: true });
    expect(apart.already).toBe(false);
    const again = await keep(PAPER);
    expect([again.already, again.sourceId === apart.sourceId]).toEqual([true, false]);
  });

  test('a file is known by its bytes, whatever it is called', async () => {
    const bytes = await epub();
    const [first, second] = [await me.keepFile('walk.epub', bytes), await me.keepFile('the same.epub', bytes)];
    expect([second.already, second.sourceId]).toEqual([true, first.sourceId]);
    expect((await me.keepFile('the same.epub', bytes, { fields: { apart: 'yes' } })).already).toBe(false);
  });
});

describe('kept all the same', () => {
  test('a page saved in a browser becomes a new version of the one that only a script makes', async () => {
    const bare = await keep('http://scripted.saltmere.test/board', {}, other);
    expect((await source(bare.sourceId, other)).facts.scripted).toBe(true);
    const saved =
      '<!doctype html>\n<!-- saved from url=(0038)http://scripted.saltmere.test/board -->\n<html><head><title>Board</title></head><body><h1>Board of the Boat Club</h1><p>The slip is closed until the ice has gone.</p></body></html>';
    const found = await other.keepFile('board.html', Buffer.from(saved));
    expect([found.already, found.before?.sourceId]).toEqual([true, bare.sourceId]);
    await other.send('POST', `/api/jobs/${found.id}/again`, { as: 'version' });
    expect(await other.done(found.id)).toMatchObject({
      step: 'Kept as version 2',
      sourceId: bare.sourceId,
      before: null,
    });
    expect((await source(bare.sourceId, other)).facts.scripted).toBeUndefined();
  });

  test('what was found is kept apart; a job that found nothing is left alone', async () => {
    const file = Buffer.from('The same words, kept twice on purpose. '.repeat(20));
    const [first, second] = [await me.keepFile('words.txt', file), await me.keepFile('words again.txt', file)];
    await me.send('POST', `/api/jobs/${first.id}/again`, { as: 'apart' });
    expect((await me.done(first.id)).sourceId).toBe(first.sourceId);
    await me.send('POST', `/api/jobs/${second.id}/again`, { as: 'apart' });
    const apart = await me.done(second.id);
    expect([apart.already, apart.sourceId === first.sourceId]).toEqual([false, false]);
    expect((await other.send('POST', `/api/jobs/${second.id}/again`, { as: 'version' })).status).toBe(404);
  });
});

describe('looking first', () => {
  const look = async (address: string): Promise<string> => (await keep(address, { look: true })).id;
  const keepDraft = async (draft: string, choices: object): Promise<Job> => {
    const id = v7();
    const { status, text } = await me.send('POST', `/api/drafts/${draft}/keep`, {
      id,
      title: 'Mine now',
      amount: 'whole',
      ...choices,
    });
    if (status !== 200) throw new Error(text);
    return me.done(id);
  };

  test('a page looked at is no source yet, and nobody else sees it', async () => {
    const draft = await look('http://packet.saltmere.test/letters/in-praise-of-soup');
    const seen = await me.send<Draft>('GET', `/api/drafts/${draft}`);
    expect(seen.body).toMatchObject({
      meta: { title: 'In Praise of Soup', author: 'Abel Corrie', site: 'Saltmere Packet' },
      before: null,
    });
    expect((await me.send('GET', `/drafts/${draft}/`)).headers['content-security-policy']).toContain(
      `img-src http://localhost:80/drafts/`,
    );
    expect([
      (await other.send('GET', `/api/drafts/${draft}`)).status,
      (await other.send('GET', `/drafts/${draft}/`)).status,
    ]).toEqual([404, 404]);
    expect(
      (await me.send<{ sources: { title: string }[] }>('GET', '/api/sources')).body.sources.map((s) => s.title),
    ).not.toContain('In Praise of Soup');
  });

  test('sections taken out are gone from text and snapshot; title, tags and remark are as given', async () => {
    const draft = await look('http://packet.saltmere.test/letters/the-peg-in-the-pond');
    const html = (await me.send('GET', `/drafts/${draft}/`)).text;
    expect(html).toContain('lying on a door');
    // body (1) → main (2 after topbar, nav) → article (0) → second paragraph after heading and byline
    const { sourceId } = await keepDraft(draft, {
      removed: ['1/2/0/3', '1/1'],
      tags: ['pegs'],
      remark: 'The door!',
      width: 390,
    });
    const kept = await source(sourceId);
    expect([kept.title, kept.tags, kept.remark, kept.width]).toEqual(['Mine now', ['pegs'], 'The door!', 390]);
    expect(await textOf(sourceId)).not.toMatch(/lying on a door\. The door was|News/);
    expect((await me.send('GET', `/api/drafts/${draft}`)).status).toBe(404);
  });

  test.each<[string, object, (text: string) => void]>([
    [
      'main',
      {},
      (text) => {
        expect(text).toContain('redshank');
        expect(text).not.toContain('Printed on the quay');
      },
    ],
    [
      'link',
      {},
      (text) => {
        expect(text).toBe('Who Counts the Birds?\nhttp://packet.saltmere.test/letters/who-counts-the-birds');
      },
    ],
    [
      'passage',
      { passage: { start: 60, end: 120 } },
      (text) => {
        expect(text.length).toBeLessThan(70);
      },
    ],
  ])('of a page, %s is kept', async (amount, choices, check) => {
    const draft = await look('http://packet.saltmere.test/letters/who-counts-the-birds');
    const { sourceId } = await keepDraft(draft, { amount, apart: true, ...choices });
    expect((await source(sourceId)).amount).toBe(amount);
    check(await textOf(sourceId));
  });

  test('a passage beyond the text is refused', async () => {
    const draft = await look('http://packet.saltmere.test/letters/gate-at-night');
    expect((await keepDraft(draft, { amount: 'passage', passage: { start: 5, end: 99_999 } })).error?.code).toBe(
      'outside_text',
    );
  });

  test('one thrown away leaves nothing behind', async () => {
    const count = (): number => server.context.db.get<{ n: number }>('SELECT count(*) AS n FROM blob')!.n;
    const before = count();
    const draft = await look('http://studio.saltmere.test/kept-light');
    expect(count()).toBeGreaterThan(before);
    await me.send('DELETE', `/api/drafts/${draft}`);
    expect(count()).toBe(before);
  });
});

describe('a list of addresses', () => {
  const until = async (id: string, holds: (batch: Batch) => boolean): Promise<Batch> => {
    for (;;) {
      const batch = (await me.send<Batch[]>('GET', '/api/lists')).body.find((b) => b.id === id)!;
      if (holds(batch)) return batch;
      await new Promise((later) => setTimeout(later, 10));
    }
  };
  const ended = (batch: Batch): boolean => batch.jobs.every((j) => j.state === 'done' || j.state === 'failed');

  test('each address has its own end and reason; what failed is tried again', async () => {
    const id = v7();
    const text =
      'Read these:\nhttp://harbour.saltmere.test/dredger\nhttp://trouble.saltmere.test/flaky?one, http://nowhere.invalid/x\nhttp://packet.saltmere.test/private/ledger\nhttp://harbour.saltmere.test/dredger';
    expect((await me.send<Batch>('POST', '/api/lists', { id, text, tags: ['week5'] })).body.jobs).toHaveLength(4);
    const first = await until(id, ended);
    expect(first.jobs.map((j) => j.error?.code ?? j.step)).toEqual([
      'Kept',
      'site_failed',
      'unknown_host',
      'robots_refuse',
    ]);
    expect((await source(first.jobs[0]!.sourceId)).tags).toEqual(['week5']);
    for (let n = 0; n < 2; n++) {
      await me.send('POST', `/api/lists/${id}/again`, {});
      await until(id, ended);
    }
    expect((await until(id, ended)).jobs.map((j) => j.state)).toEqual(['done', 'done', 'failed', 'failed']);
    expect((await other.send('GET', '/api/lists')).body).toEqual([]);
    expect((await other.send('PATCH', `/api/lists/${id}`, { paused: true })).status).toBe(404);
  });

  test('a paused list rests, a single page is not behind it', async () => {
    const id = v7();
    const text = Array.from({ length: 12 }, (_, n) => `http://trouble.saltmere.test/slow?${n}`).join('\n');
    await me.send('POST', '/api/lists', { id, text });
    await me.send('PATCH', `/api/lists/${id}`, { paused: true });
    const rested = await until(id, (b) => b.jobs.every((j) => j.state !== 'running'));
    expect(rested.jobs.filter((j) => j.state === 'queued').length).toBeGreaterThan(9);
    await me.send('PATCH', `/api/lists/${id}`, { paused: false });
    expect((await keep('http://posts.saltmere.test/line-e')).state).toBe('done');
    expect((await until(id, () => true)).jobs.some((j) => j.state === 'queued')).toBe(true);
    await me.send('PATCH', `/api/lists/${id}`, { paused: true });
    await until(id, (b) => b.jobs.every((j) => j.state !== 'running'));
    expect((await me.send('DELETE', `/api/lists/${id}`)).status).toBe(204);
  });

  test('bookmarks files and tables are read, too', async () => {
    const made = async (name: string, text: string): Promise<string[]> => {
      const id = v7();
      await me.send('POST', '/api/lists', { id, name, text });
      return (await until(id, ended)).jobs.map((j) => j.label);
    };
    expect(
      await made(
        'bookmarks.html',
        '<DT><A HREF="http://pegs.saltmere.test/readings-2026?a=1&amp;b=2" ADD_DATE="1">Readings</A>',
      ),
    ).toEqual(['http://pegs.saltmere.test/readings-2026?a=1&b=2']);
    expect(await made('week.csv', 'title,address\n"Salt, and so on",http://lagoon.saltmere.test/unsaid\n')).toEqual([
      'http://lagoon.saltmere.test/unsaid',
    ]);
  });
});

describe('feeds', () => {
  test('one is found from a page’s address; its items are accepted or skipped', async () => {
    const id = v7();
    const feed = await me.send<Feed>('POST', '/api/feeds', { id, address: 'http://packet.saltmere.test/letters' });
    expect(feed.body).toMatchObject({
      id,
      title: 'Letters to the Packet',
      address: 'http://packet.saltmere.test/letters.rss',
      waiting: 4,
      error: null,
    });
    const items = (await me.send<Arrival[]>('GET', '/api/arrivals')).body;
    const jobId = v7();
    expect(items[0]).toMatchObject({
      title: 'Who Counts the Birds?',
      author: 'Tilda Wick',
      publishedAt: '2026-11-14T06:00:00.000Z',
      feed: 'Letters to the Packet',
    });
    await me.send('POST', '/api/arrivals/accept', { ids: [items[1]!.id], jobIds: [jobId] });
    expect((await me.done(jobId)).state).toBe('done');
    await me.send('POST', '/api/arrivals/skip', { ids: [items[2]!.id, items[3]!.id] });
    expect((await me.send<Arrival[]>('GET', '/api/arrivals')).body.map((i) => i.id)).toEqual([items[0]!.id]);
    await me.send('POST', '/api/arrivals/restore', { ids: [items[3]!.id] });
    expect((await me.send<Feed>('POST', `/api/feeds/${id}/check`, {})).body.waiting).toBe(2);
    expect([
      (await other.send<Arrival[]>('GET', '/api/arrivals')).body,
      (await other.send('DELETE', `/api/feeds/${id}`)).status,
    ]).toEqual([[], 404]);
    expect(
      (await me.send<Feed>('POST', '/api/feeds', { id: v7(), address: 'http://packet.saltmere.test/letters.rss' })).body
        .id,
    ).toBe(id);
  });

  test('one that is not followed any more when its answer comes is passed over', async () => {
    const id = v7();
    await me.send('POST', '/api/feeds', { id, address: 'http://pegs.saltmere.test/readings.json' });
    await me.send('DELETE', `/api/feeds/${id}`);
    await checkFeed(server.context, { id, personId: me.me.id, address: 'http://pegs.saltmere.test/readings.json' });
    expect(server.context.db.all('SELECT 1 FROM feed_item WHERE feed_id = ?', id)).toEqual([]);
  });

  test.each([
    ['http://harbour.saltmere.test/notices.atom', 2],
    ['http://pegs.saltmere.test/readings-2026', 1],
  ])('%s is followed', async (address, waiting) => {
    expect((await me.send<Feed>('POST', '/api/feeds', { id: v7(), address })).body.waiting).toBe(waiting);
  });
});

describe('letters', () => {
  test('one sent to a person’s address becomes a source; any other address is refused', async () => {
    const door = await openMailDoor(server.context, { port: 0, host: '127.0.0.1', domain: 'intake.saltmere.test' });
    try {
      const { address } = (await me.send<Intake>('GET', '/api/intake')).body;
      expect(address).toMatch(/^letters-[a-z2-9]{12}@intake\.saltmere\.test$/);
      expect((await me.send<Intake>('GET', '/api/intake')).body.address).toBe(address);
      const letter = {
        from: 'Tide Letter <tide@letters.saltmere.test>',
        subject: 'The week on the marsh',
        list: 'The Tide Letter <tide.letters.saltmere.test>',
        messageId: '<w47@letters.saltmere.test>',
        html: '<p>Mud on Monday.</p><img src="http://studio.saltmere.test/pictures/huge.svg">',
      };
      await sendLetter(door.port, { ...letter, to: address! });
      const job =
        (await me.send<Job[]>('GET', '/api/jobs')).body.find((j) => j.label === 'The week on the marsh') ??
        server.context.db.get<{ id: string }>("SELECT id FROM job WHERE label = 'The week on the marsh'")!;
      const kept = await source((await me.done(job.id)).sourceId);
      expect(kept).toMatchObject({
        kind: 'letter',
        title: 'The week on the marsh',
        site: 'The Tide Letter',
        author: 'Tide Letter',
        facts: { remote: 1 },
        file: { mediaType: 'message/rfc822' },
      });
      expect(web.asked.get('studio.saltmere.test/pictures/huge.svg') ?? 0).toBe(0);
      const again = v7();
      await me.send('POST', `/api/sources/${kept.id}/again`, { id: again, remote: true });
      expect((await me.done(again)).step).toBe('Kept as version 2');
      expect((await source(kept.id)).facts.remote).toBeUndefined();
      expect(web.asked.get('studio.saltmere.test/pictures/huge.svg')).toBe(1);
      await expect(sendLetter(door.port, { ...letter, to: 'letters-nobody@intake.saltmere.test' })).rejects.toThrow(
        /550/,
      );
      const renewed = (await me.send<Intake>('POST', '/api/intake/renew', {})).body.address!;
      await expect(sendLetter(door.port, { ...letter, to: address! })).rejects.toThrow(/550/);
      expect(renewed).not.toBe(address);
    } finally {
      await door.close();
    }
  });
});
