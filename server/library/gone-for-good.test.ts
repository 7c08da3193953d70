import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import type { Annotation, SourceDetail } from '@avrelle/core/wire';
import { openDatabase } from '../db/database';
import { startServer } from '../testing/harness';
import { removeExpired } from './remove-expired';

/** Words that stand nowhere else, in the forms in which a file may hold them: as written, folded, and in UTF-16. */
const SECRET = 'Quizzaldrift';
const holds = (file: string, word = SECRET): boolean =>
  [word, word.toLowerCase()].some((form) =>
    [Buffer.from(form), Buffer.from(form, 'utf16le')].some((bytes) => fs.readFileSync(file).includes(bytes)),
  );

test('what was deleted is gone from the file after thirty days: text, files, indexes, notes, events and jobs', async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-gone-'));
  const file = path.join(folder, 'a.db');
  const server = await startServer({ db: openDatabase(file) });
  const person = await server.person('Deleter');
  const { context } = server;
  const stays = await person.keepText('stays', 'The tide turns at seven, and stays.');
  const goes = await person.keepText(SECRET, `The ${SECRET} of the marsh turns at eight.`);
  const annotate = async (sourceId: string, note: string): Promise<string> => {
    const id = v7();
    const { versionId } = (await person.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
    await person.send('PUT', `/api/annotations/${id}`, {
      sourceId,
      versionId,
      kind: 'claim',
      note,
      tags: [SECRET.toLowerCase()],
      anchor: { quote: { exact: 'The', prefix: '', suffix: ' ' }, position: { start: 0, end: 3 } },
      classIds: [],
    });
    return id;
  };
  await annotate(goes, `${SECRET} in a note`);
  const note = await annotate(stays, `${SECRET} again`);
  await person.send('PUT', `/api/sources/${goes}/tags`, { tags: [SECRET.toLowerCase()] });
  const later = (days: number) => ({
    db: context.db,
    now: () => new Date(Date.now() + days * 86_400_000).toISOString(),
  });
  await person.send('DELETE', `/api/sources/${goes}`);
  await person.send('PATCH', `/api/annotations/${note}`, { version: 1, deleted: true });
  removeExpired(later(29));
  expect(holds(file)).toBe(true);
  // The first time names the files that nothing refers to, the next, an hour later, removes them.
  removeExpired(later(31), removeExpired(later(31)).orphans);
  context.db.raw.pragma('wal_checkpoint(TRUNCATE)');
  expect(holds(file)).toBe(false);
  expect(fs.readFileSync(`${file}-wal`)).toHaveLength(0);
  expect(context.db.get<{ n: number }>('SELECT count(*) AS n FROM event')!.n).toBe(0);
  expect((await person.send<SourceDetail>('GET', `/api/sources/${stays}`)).body.title).toBe('Stays');
  expect((await person.send<{ total: number }>('GET', '/api/sources?q=tide')).body.total).toBe(1);
  await server.close();
  fs.rmSync(folder, { recursive: true });
});

test('of what was answered only the place is left, and a drawing that was deleted is not told to those who answered it', async () => {
  const server = await startServer();
  const [author, mate] = [await server.person('Author'), await server.person('Mate')];
  const classId = v7();
  await author.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'tide' });
  await mate.send('POST', '/api/classes/join', {
    code: (await author.send<{ code: string }>('GET', `/api/classes/${classId}`)).body.code,
  });
  const sourceId = await author.keepText('tide', 'The tide turns at seven.');
  const { versionId } = (await author.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  await author.send('PUT', `/api/classes/${classId}/sources/${sourceId}`, {});
  const [drawn, answer] = [v7(), v7()];
  const anchor = { quote: { exact: 'tide', prefix: 'The ', suffix: ' turns' }, position: { start: 4, end: 8 } };
  const spot = {
    type: 'drawn',
    tool: 'pen',
    colour: 'ink',
    width: 0.1,
    tied: {
      to: 'lines',
      strokes: [
        [
          [0, 0, 0.5],
          [1, 1, 0.5],
        ],
      ],
    },
  };
  const made = await author.send<Annotation>('PUT', `/api/annotations/${drawn}`, {
    sourceId,
    versionId,
    kind: 'claim',
    note: 'a sketch',
    tags: [],
    anchor: { ...anchor, spot },
    classIds: [classId],
  });
  expect(made.status).toBe(200);
  await mate.send('PUT', `/api/replies/${answer}`, { parentId: drawn, note: 'seen' });
  await author.send('PATCH', `/api/annotations/${drawn}`, { version: 1, deleted: true });
  const seen = (await mate.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body.find(
    (a) => a.id === drawn,
  )!;
  expect([seen.deleted, seen.note, seen.anchor]).toEqual([true, '', anchor]);
  const back = (await author.send<Annotation>('PATCH', `/api/annotations/${drawn}`, { version: 2, deleted: false }))
    .body;
  expect(back.anchor).toMatchObject({ spot: { type: 'drawn' } });
  await author.send('PATCH', `/api/annotations/${drawn}`, { version: 3, deleted: true });
  expect(
    removeExpired({ db: server.context.db, now: () => new Date(Date.now() + 31 * 86_400_000).toISOString() })
      .annotations,
  ).toBe(1);
  expect(server.context.db.get('SELECT note, quote FROM annotation WHERE id = ?', drawn)).toEqual({
    note: '',
    quote: '',
  });
  expect(
    (await mate.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body.map((a) => a.id).toSorted(),
  ).toEqual([drawn, answer].toSorted());
  await server.close();
});
