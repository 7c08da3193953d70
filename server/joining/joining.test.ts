import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import JSZip from 'jszip';
import { v7 } from 'uuid';
import type {
  Annotation,
  ClassDetail,
  ClassJoining,
  Desk,
  Invitation,
  JoinLink,
  MyRequest,
  Problem,
  RosterPreview,
  SourceDetail,
} from '@avrelle/core/wire';
import { removeExpired } from '../library/remove-expired';
import { makeReadingClass, showRoster } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let ines: Client;
let tomas: Client;
const START = Date.now();
let at = START;
let id: string;
let sourceId: string;
let versionId: string;
beforeAll(async () => {
  server = await startServer({ now: () => new Date(at).toISOString() });
  teacher = await server.person('Teacher');
  ines = await server.person('Ines');
  tomas = await server.person('Tomas');
});
afterAll(() => server.close());
beforeEach(async () => {
  at = START;
  ({ id, sourceId, versionId } = await makeReadingClass(teacher));
});

const DAY = 86_400_000;
const later = (days: number): void => void (at += days * DAY);
const linkOf = async (body: object): Promise<JoinLink> =>
  (await teacher.send<JoinLink>('PUT', `/api/classes/${id}/links/${v7()}`, body)).body;
const joinBy = async (who: Client, { token }: Pick<JoinLink, 'token'>): Promise<string> => {
  const { body } = await who.send<{ joined: boolean } & Problem>('POST', '/api/join-link', { link: token });
  return body.code ?? (body.joined ? 'in' : 'waits');
};
const codeOf = async (): Promise<string> => (await teacher.send<ClassDetail>('GET', `/api/classes/${id}`)).body.code!;
const membersOf = async (): Promise<string[]> =>
  (await teacher.send<ClassDetail>('GET', `/api/classes/${id}`)).body.members.map((m) => `${m.name}, ${m.role}`);
const joining = async (): Promise<ClassJoining> =>
  (await teacher.send<ClassJoining>('GET', `/api/classes/${id}/joining`)).body;
const letThemAsk = (more: object = {}) =>
  teacher.send('PUT', `/api/classes/${id}/joining`, { joining: 'asked', askable: false, ...more });
const mine = async (who: Client): Promise<MyRequest[]> =>
  (await who.send<MyRequest[]>('GET', '/api/join-requests')).body;
const asking = async (): Promise<number | undefined> =>
  (await teacher.send<Desk>('GET', '/api/desk?day=2026-10-01')).body.asking.find((a) => a.class.id === id)?.people;

describe('a link', () => {
  test('lets in as many as it is for, says before what it leads to, and ends at its time', async () => {
    const link = await linkOf({ uses: 1, days: 7 });
    const look = async (who: Client) =>
      (await who.send<Invitation & Problem>('GET', `/api/join-link?link=${link.token}`)).body;
    expect(await look(ines)).toEqual({
      name: 'Field Course',
      tint: 'tide',
      teachers: ['Teacher'],
      joining: 'at_once',
      classId: null,
      asked: false,
    });
    expect(await joinBy(ines, link)).toBe('in');
    expect([await joinBy(ines, link), (await look(ines)).classId]).toEqual(['in', id]);
    expect([await joinBy(tomas, link), (await look(tomas)).code]).toEqual(['link_over', 'link_over']);
    expect(await membersOf()).toEqual(['Teacher, teacher', 'Ines, student']);

    const ends = await linkOf({ days: 7 });
    later(6);
    expect(await joinBy(ines, ends)).toBe('in');
    later(1);
    expect(await joinBy(tomas, ends)).toBe('link_over');
  });

  test('is closed by who teaches, known to them alone, and gone for good thirty days after its end', async () => {
    const [closed, ended] = [await linkOf({}), await linkOf({ days: 1 })];
    await joinBy(ines, closed);
    expect((await ines.send('GET', `/api/classes/${id}/joining`)).status).toBe(403);
    expect((await ines.send('DELETE', `/api/classes/${id}/links/${closed.id}`)).status).toBe(403);
    expect((await teacher.send('DELETE', `/api/classes/${id}/links/${closed.id}`)).status).toBe(204);
    expect(await joinBy(tomas, closed)).toBe('wrong_link');
    expect((await joining()).links.map((l) => l.id)).toEqual([ended.id]);
    later(32);
    removeExpired(server.context);
    at = START;
    expect((await joining()).links).toEqual([]);
  });

  test('sent again it is the same link; that of another class is not found', async () => {
    const url = (classId: string, linkId: string) => `/api/classes/${classId}/links/${linkId}`;
    const linkId = v7();
    const { body } = await teacher.send<JoinLink>('PUT', url(id, linkId), { uses: 3 });
    expect((await teacher.send<JoinLink>('PUT', url(id, linkId), { uses: 3 })).body).toEqual(body);
    const other = await makeReadingClass(teacher);
    expect((await teacher.send('PUT', url(other.id, linkId), {})).status).toBe(404);
    expect((await teacher.send('DELETE', url(other.id, linkId))).status).toBe(404);
  });
});

test('a code cannot be found by trying: after some wrong ones nobody is heard for a while', async () => {
  const guesser = await server.person(`Guesser ${id}`);
  const codes: (string | undefined)[] = [];
  for (let n = 0; n < 20; n++) {
    const { body } = await guesser.send<Problem>('POST', '/api/classes/join', { code: `AAAA${n + 22}` });
    codes.push(body.code);
  }
  expect(codes.slice(0, 12)).toEqual(Array(12).fill('wrong_code'));
  expect(codes.slice(13)).toEqual(Array(7).fill('too_fast'));
  expect((await guesser.send<Problem>('POST', '/api/classes/join', { code: await codeOf() })).body.code).toBe(
    'too_fast',
  );
});

describe('where one has to be let in', () => {
  test('who comes waits, sees nothing of the class, and is in when a teacher says so', async () => {
    await letThemAsk();
    const code = await codeOf();
    const { body } = await ines.send<{ joined: boolean }>('POST', '/api/classes/join', { code });
    expect([body.joined, (await ines.send('GET', `/api/classes/${id}`)).status]).toEqual([false, 404]);
    await ines.send('POST', '/api/classes/join', { code });
    const { requests } = await joining();
    expect(requests).toEqual([
      expect.objectContaining({ person: { id: ines.me.id, name: 'Ines' }, sourceTitle: null }),
    ]);
    expect([(await mine(ines)).map((r) => [r.name, r.refused]), await asking()]).toEqual([
      [['Field Course', false]],
      1,
    ]);
    const url = `/api/classes/${id}/requests/${requests[0]!.id}`;
    expect((await teacher.send('PUT', url, { letIn: true })).status).toBe(204);
    expect([await membersOf(), await mine(ines), await asking()]).toEqual([
      ['Teacher, teacher', 'Ines, student'],
      [],
      undefined,
    ]);
    expect((await teacher.send('PUT', url, { letIn: true })).status).toBe(404);
  });

  test('who is not let in may ask again after a day; who asked can take it back', async () => {
    await letThemAsk();
    const code = await codeOf();
    const ask = async () => void (await tomas.send('POST', '/api/classes/join', { code }));
    await ask();
    const [request] = (await joining()).requests;
    await teacher.send('PUT', `/api/classes/${id}/requests/${request!.id}`, { letIn: false });
    await ask();
    expect([(await joining()).requests, (await mine(tomas)).map((r) => r.refused)]).toEqual([[], [true]]);
    later(1.01);
    await ask();
    expect((await joining()).requests).toHaveLength(1);
    expect((await ines.send('DELETE', `/api/join-requests/${request!.id}`)).status).toBe(404);
    expect((await tomas.send('DELETE', `/api/join-requests/${request!.id}`)).status).toBe(204);
    expect([(await joining()).requests, await mine(tomas)]).toEqual([[], []]);
  });

  test('a link asks, too, and counts who asked', async () => {
    await letThemAsk();
    const link = await linkOf({ uses: 1 });
    expect([await joinBy(ines, link), await joinBy(ines, link), await joinBy(tomas, link)]).toEqual([
      'waits',
      'waits',
      'link_over',
    ]);
  });
});

describe('an annotation that is for another class, too', () => {
  let other: string;
  let mark: string;
  beforeEach(async () => {
    // Ines and the teacher are in both classes, Tomas in the first alone.
    other = id;
    const here = await makeReadingClass(teacher, ines, tomas);
    await teacher.send('PUT', `/api/classes/${here.id}/sources/${sourceId}`);
    await ines.send('POST', '/api/classes/join', { code: await codeOf() });
    mark = v7();
    const put = tideMark(sourceId, versionId, { note: 'Why at seven?', classIds: [other, here.id] });
    expect((await ines.send('PUT', `/api/annotations/${mark}`, put)).status).toBe(200);
  });
  const seenBy = async (who: Client): Promise<Annotation> =>
    (await who.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations`)).body.find((a) => a.id === mark)!;
  const askBy = async (who: Client) =>
    (await who.send<{ asked: number }>('POST', `/api/annotations/${mark}/ask-to-join`)).body.asked;

  test('says so, but not which; one may ask where the class lets others ask', async () => {
    expect([(await seenBy(ines)).elsewhere, (await seenBy(tomas)).elsewhere]).toEqual([undefined, 'closed']);
    expect(JSON.stringify(await seenBy(tomas))).not.toContain(other);
    expect(await askBy(tomas)).toBe(0);
    const { title } = (await tomas.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
    await letThemAsk({ joining: 'at_once', askable: true });
    expect([(await seenBy(tomas)).elsewhere, await askBy(tomas), await askBy(tomas)]).toEqual(['askable', 1, 0]);
    expect(await mine(tomas)).toEqual([expect.objectContaining({ name: null, sourceTitle: title })]);
    const [request] = (await joining()).requests;
    expect(request).toMatchObject({ person: { name: 'Tomas' }, sourceTitle: title });
    await teacher.send('PUT', `/api/classes/${other}/requests/${request!.id}`, { letIn: true });
    expect([(await seenBy(tomas)).elsewhere, (await seenBy(tomas)).classIds]).toEqual([
      undefined,
      expect.arrayContaining([other]),
    ]);
  });

  test('says nothing of a class that is archived, nor where it is hidden', async () => {
    const hide = (reason: string | null) =>
      teacher.send('PUT', `/api/classes/${other}/annotations/${mark}/hidden`, { reason });
    await hide('Names somebody.');
    expect((await seenBy(tomas)).elsewhere).toBeUndefined();
    await hide(null);
    expect((await seenBy(tomas)).elsewhere).toBe('closed');
    await teacher.send('PUT', `/api/classes/${other}/archived`, { archived: true });
    expect((await seenBy(tomas)).elsewhere).toBeUndefined();
  });

  test('nobody asks by one they do not see', async () => {
    const stranger = await server.person(`Stranger ${mark}`);
    expect((await stranger.send('POST', `/api/annotations/${mark}/ask-to-join`)).status).toBe(404);
  });
});

describe('a list of people', () => {
  const preview = async (payload: string | Buffer, who = teacher) =>
    (await showRoster<RosterPreview & Problem>(server, who, id, payload)).body;
  const LIST = [
    'First name;Last name;E-mail',
    `Ines;Kestle;INES@college.saltmere.test`,
    'Mère;Dorn;new@college.saltmere.test',
    'Tomas;Rell;tomas@college.saltmere.test',
    'Tomas;Again;tomas@college.saltmere.test',
    'Kit;Ansell;',
  ];

  test('is looked at first: who is in, known, new, or left out and why; nothing is changed by it', async () => {
    await ines.send('POST', '/api/classes/join', { code: await codeOf() });
    const { classes } = await preview(Buffer.from(LIST.join('\r\n'), 'latin1'));
    expect(
      classes.map(({ people, leftOut }) => [people.map((p) => [p.name, p.state]), leftOut.map((l) => l.why)]),
    ).toEqual([
      [
        [
          ['Ines Kestle', 'member'],
          ['Mère Dorn', 'new'],
          ['Tomas Rell', 'known'],
        ],
        ['twice', 'no_address'],
      ],
    ]);
    expect([await membersOf(), (await joining()).links]).toEqual([['Teacher, teacher', 'Ines, student'], []]);
    expect((await preview(LIST.join('\n'), ines)).code).toBe('teachers_only');
  });

  test('adds who has an account, and gives everybody else a link of their own, once', async () => {
    await letThemAsk();
    const people = [
      { name: 'Tomas Rell', email: 'tomas@college.saltmere.test', role: 'assistant' },
      { name: 'Anneke Dorn', email: `anneke.${id}@college.saltmere.test`, role: 'teacher' },
    ];
    const add = async () =>
      (await teacher.send<{ added: number; invited: JoinLink[] }>('POST', `/api/classes/${id}/roster`, { people }))
        .body;
    const first = await add();
    expect([first.added, first.invited.map((l) => [l.forWhom, l.role, l.left])]).toEqual([
      1,
      [['Anneke Dorn', 'assistant', 1]],
    ]);
    expect(await membersOf()).toEqual(['Teacher, teacher', 'Tomas, assistant']);
    expect(await add()).toEqual({ added: 0, invited: first.invited });
    expect((await preview(`Anneke,${people[1]!.email}`)).classes[0]!.people[0]!.state).toBe('invited');

    // Whoever is handed it is in at once, also where others have to be let in.
    const anneke = await server.person(`Anneke ${id}`);
    expect([await joinBy(anneke, first.invited[0]!), await joinBy(ines, first.invited[0]!)]).toEqual([
      'in',
      'link_over',
    ]);
  });

  test('a OneRoster archive is read class by class; one that is broken is refused', async () => {
    const zip = new JSZip();
    zip.file('classes.csv', 'sourcedId,status,title\nc1,active,Field Course B\n');
    zip.file(
      'users.csv',
      'sourcedId,enabledUser,givenName,familyName,email\nu1,true,Ines,Kestle,ines@college.saltmere.test\n',
    );
    zip.file('enrollments.csv', 'sourcedId,classSourcedId,userSourcedId,role\ne1,c1,u1,student\ne2,c1,u9,student\n');
    const bytes = await zip.generateAsync({ type: 'nodebuffer' });
    expect((await preview(bytes)).classes).toEqual([
      {
        key: 'c1',
        title: 'Field Course B',
        people: [expect.objectContaining({ name: 'Ines Kestle', state: 'known', line: 2 })],
        leftOut: [expect.objectContaining({ line: 3, why: 'no_address' })],
      },
    ]);
    expect((await preview(bytes.subarray(0, 200))).code).toBe('bad_archive');
    const many = Array.from({ length: 10_001 }, (_, n) => `e${n},c1,u1,student`).join('\n');
    zip.file('enrollments.csv', `sourcedId,classSourcedId,userSourcedId,role\n${many}`);
    expect((await preview(await zip.generateAsync({ type: 'nodebuffer' }))).code).toBe('too_many_people');
    zip.remove('users.csv');
    expect((await preview(await zip.generateAsync({ type: 'nodebuffer' }))).code).toBe('no_people_listed');
    expect((await preview('')).code).toBe('no_file');
  });
});
