import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { JoinLink, SourceDetail } from '@avrelle/core/wire';
import { makeClass, makeReadingClass, showRoster } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { answered, injected } from '../testing/refused';
import { tideMark } from '../testing/tide-mark';
import { ASKING } from './asking';

let server: Server;
let closed: Server;
let admin: Client;
let teacher: Client;
let student: Client;
let stranger: Client;
let classId: string;
let sourceId: string;
let source: SourceDetail;
let mark: string;

beforeAll(async () => {
  server = await startServer();
  closed = await startServer({ env: { AVRELLE_SIGN_UP: 'no' } });
  await closed.person('Admin');
  admin = await server.person('Office');
  teacher = await server.person('Teacher');
  student = await server.person('Student');
  stranger = await server.person('Stranger');
  classId = await makeClass(teacher, 'Field Course', student);
  sourceId = await teacher.keepText('tide', 'The tide turns at seven.');
  source = (await teacher.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  mark = v7();
  await teacher.send('PUT', `/api/annotations/${mark}`, put());
  await teacher.send('PUT', `/api/classes/${classId}/sources/${sourceId}`, {});
});
afterAll(async () => {
  await Promise.all([server, closed].map((one) => one.close()));
});

const put = (more: object = {}) => tideMark(sourceId, source.versionId, more);
const inject = (options: object): Promise<string> => injected(server.app, options);

const withToken = async (method: string, url: string): Promise<string> => {
  const asked = { name: 'A program', scope: 'read', days: 7 };
  const made = await teacher.send<{ token: string }>('PUT', `/api/account/tokens/${v7()}`, asked);
  return inject({ method, url, headers: { authorization: `Bearer ${made.body.token}` } });
};

/** What is met while the reading is set so. */
async function whileSet(set: object, ask: (url: string) => Parameters<typeof answered>[0]): Promise<string> {
  const url = `/api/classes/${classId}/assignments/${sourceId}`;
  await teacher.send('PUT', url, set);
  const met = await answered(ask(url));
  await teacher.send('DELETE', url);
  return met;
}

/** What is met while the class is asked a question, of which the answers are shown when `shown`. */
async function whileAsked(ask: (url: string) => Parameters<typeof answered>[0], shown = false): Promise<string> {
  const id = v7();
  await teacher.send('PUT', `/api/annotations/${id}`, put({ note: 'At seven?', classIds: [classId] }));
  const url = `/api/annotations/${id}`;
  await teacher.send('PUT', `${url}/question`, { form: 'one', choices: ['Yes', 'No'] });
  await teacher.send('PUT', `/api/classes/${classId}/questions/${id}/shown`, { shown });
  return answered(ask(url));
}

/** One way to meet each row of the table. A new row without one does not compile. */
const WAYS: Readonly<Record<keyof typeof ASKING, () => Promise<string>>> = {
  suspended: async () => {
    const { me } = await server.person('Suspended');
    await admin.send('PUT', `/api/people/${me.id}/suspension`);
    const asked = { email: me.email, password: 'a long enough password' };
    return answered(server.nobody.send('POST', '/api/session', asked));
  },
  administrators_only: () => answered(student.send('GET', '/api/people')),
  own_account: () => answered(admin.send('PUT', `/api/people/${admin.me.id}/suspension`)),
  bad_token: () => inject({ method: 'GET', url: '/api/sources', headers: { authorization: 'Bearer unknown' } }),
  token_scope: () => withToken('DELETE', `/api/sources/${sourceId}`),
  browser_only: () => withToken('GET', '/api/account/tokens'),
  wrong_link: () => answered(stranger.send('GET', '/api/join-link?link=not-a-link-of-ours')),
  link_over: async () => {
    const { body } = await teacher.send<JoinLink>('PUT', `/api/classes/${classId}/links/${v7()}`, { uses: 1 });
    await (await server.person('The only one')).send('POST', '/api/join-link', { link: body.token });
    return answered(stranger.send('POST', '/api/join-link', { link: body.token }));
  },
  no_people_listed: () => answered(showRoster(server, teacher, classId, 'Ines Kestle')),
  too_many_people: () => answered(showRoster(server, teacher, classId, 'P,p@saltmere.test\n'.repeat(10_001))),
  not_in_group: () => answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ groupIds: [v7()] }))),
  class_archived: async () => {
    const id = await makeClass(teacher, 'Archived');
    await teacher.send('PUT', `/api/classes/${id}/archived`, { archived: true });
    return answered(teacher.send('PUT', `/api/classes/${id}/sources/${sourceId}`));
  },
  last_teacher: () => answered(teacher.send('DELETE', `/api/classes/${classId}/membership`)),
  one_version: () => answered(teacher.send('GET', `/api/sources/${sourceId}/changes`)),
  old_version: () =>
    answered(teacher.send('PUT', `/api/annotations/${mark}/place`, { versionId: v7(), start: 0, end: 3 })),
  query: () => answered(teacher.send('GET', '/api/sources?q=(tide')),
  invalid: () => answered(teacher.send('PUT', '/api/annotations/not-an-id', put())),
  not_found: () => answered(stranger.send('GET', `/api/sources/${sourceId}`)),
  foreign_origin: () =>
    inject({
      method: 'POST',
      url: '/api/session',
      headers: { origin: 'http://elsewhere.test', host: 'avrelle.test' },
      payload: {},
    }),
  too_fast: async () => {
    for (let n = 0; n < 20; n++)
      await server.app.inject({
        method: 'POST',
        url: '/api/session',
        remoteAddress: '10.7.7.7',
        payload: { email: 'a@b.test', password: 'wrong' },
      });
    return inject({
      method: 'POST',
      url: '/api/session',
      remoteAddress: '10.7.7.7',
      payload: { email: 'a@b.test', password: 'wrong' },
    });
  },
  too_many_streams: () => {
    const leave = Array.from({ length: 24 }, () =>
      server.context.streams.add({ personId: stranger.me.id, session: 'x', end: () => undefined }),
    );
    return answered(stranger.send('GET', '/api/events')).finally(() => leave.forEach((go) => go()));
  },
  busy: async () => {
    const held = await startServer();
    const somebody = await held.person('Somebody');
    held.context.db.transaction = () => {
      throw Object.assign(new Error('database is locked'), { code: 'SQLITE_BUSY' });
    };
    return answered(somebody.send('PUT', `/api/classes/${v7()}`, { name: 'Late', tint: 'tide' })).finally(() =>
      held.close(),
    );
  },
  broken: async () => {
    const dead = await startServer();
    const somebody = await dead.person('Somebody');
    dead.context.db.raw.exec('DROP VIEW source_visible');
    const silent = console.error;
    console.error = () => undefined;
    const code = await answered(somebody.send('GET', '/api/sources'));
    console.error = silent;
    await dead.close();
    return code;
  },
  signed_out: () => answered(server.nobody.send('GET', '/api/sources')),
  wrong_password: () =>
    inject({
      method: 'POST',
      url: '/api/session',
      payload: { email: 'teacher@college.saltmere.test', password: 'wrong' },
    }),
  common_password: () =>
    inject({
      method: 'POST',
      url: '/api/people',
      payload: { email: 'weak@college.saltmere.test', name: 'T', password: 'password1234' },
    }),
  email_taken: () =>
    inject({
      method: 'POST',
      url: '/api/people',
      payload: { email: 'TEACHER@college.saltmere.test', name: 'T', password: 'long enough words' },
    }),
  sign_up_closed: () =>
    answered(
      closed.nobody.send('POST', '/api/people', { email: 'x@y.test', name: 'X', password: 'long enough words' }),
    ),
  stale: () => answered(teacher.send('PATCH', `/api/annotations/${mark}`, { version: 99, note: 'late' })),
  id_taken: () => answered(student.send('PUT', `/api/annotations/${mark}`, put())),
  tag_in_use: async () => {
    const id = await teacher.keepText('tagged', 'The tide turns.');
    await teacher.send('PUT', `/api/sources/${id}/tags`, { tags: ['old-name', 'new-name'] });
    return answered(teacher.send('POST', '/api/tags/change', { from: 'old-name', to: 'new-name' }));
  },
  not_yours: () => answered(student.send('PATCH', `/api/sources/${sourceId}`, { version: 1, title: 'Mine now' })),
  teachers_only: () => answered(student.send('PUT', `/api/classes/${classId}`, { name: 'Mine', tint: 'moss' })),
  outside_text: () =>
    answered(
      teacher.send(
        'PUT',
        `/api/annotations/${v7()}`,
        put({ anchor: { quote: { exact: 'x', prefix: '', suffix: '' }, position: { start: 5, end: 5000 } } }),
      ),
    ),
  quote_mismatch: () =>
    answered(
      teacher.send(
        'PUT',
        `/api/annotations/${v7()}`,
        put({ anchor: { quote: { exact: 'moon', prefix: '', suffix: '' }, position: { start: 4, end: 8 } } }),
      ),
    ),
  set_already: async () => {
    const { id: first, sourceId: source } = await makeReadingClass(teacher);
    const { id: second } = await makeReadingClass(teacher);
    const url = (classId: string): string => `/api/classes/${classId}/assignments/${source}`;
    await teacher.send('PUT', url(second), { answers: 1 });
    return answered(teacher.send('PUT', url(first), { answers: 2, alsoIn: [second] }));
  },
  together_already: async () => {
    const { id: first, sourceId: source } = await makeReadingClass(teacher);
    const [{ id: second }, { id: third }] = [await makeReadingClass(teacher), await makeReadingClass(teacher)];
    const setFor = (id: string) =>
      teacher.send('PUT', `/api/classes/${id}/assignments/${source}`, { alsoIn: [second], together: true });
    await setFor(first);
    return answered(setFor(third));
  },
  unknown_kind: () => answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ kind: v7() }))),
  not_in_class: () => answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ classIds: [v7()] }))),
  source_not_in_class: async () => {
    const other = v7();
    await teacher.send('PUT', `/api/classes/${other}`, { name: 'Another', tint: 'clay' });
    return answered(teacher.send('PUT', `/api/annotations/${v7()}`, put({ classIds: [other] })));
  },
  comments_closed: () =>
    whileSet({ comments: false }, () => student.send('PUT', `/api/annotations/${v7()}`, put({ classIds: [classId] }))),
  not_later: () =>
    whileSet({}, (url) => teacher.send('PUT', `${url}/extensions/${student.me.id}`, { dueAt: server.context.now() })),
  read_already: async () => {
    const annotationId = v7();
    const { versionId } = (await teacher.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
    const mark = tideMark(sourceId, versionId, { classIds: [classId], held: true });
    await teacher.send('PUT', `/api/annotations/${annotationId}`, mark);
    const some = { annotationIds: [annotationId] };
    await teacher.send('POST', `/api/classes/${classId}/held/release`, some);
    await student.send('POST', '/api/annotations/seen', some);
    return answered(teacher.send('POST', `/api/classes/${classId}/held/back`, some));
  },
  wrong_code: () => answered(student.send('POST', '/api/classes/join', { code: 'AAAAAA' })),
  asks_nobody: () => answered(teacher.send('PUT', `/api/annotations/${mark}/question`, { form: 'open' })),
  not_asked: () => whileAsked((url) => teacher.send('PUT', `${url}/response`, { choices: [0] })),
  no_answer: () => whileAsked((url) => student.send('PUT', `${url}/response`, { words: 'Yes' })),
  answers_shown: () => whileAsked((url) => student.send('PUT', `${url}/response`, { choices: [0] }), true),
  live_already: async () => {
    const id = await makeClass(teacher, 'Shown to', student);
    await teacher.send('PUT', `/api/classes/${id}/members/${student.me.id}`, { role: 'assistant' });
    const show = (by: Client) => by.send('PUT', `/api/classes/${id}/live`, { place: { sourceId: v7() } });
    await show(teacher);
    return answered(show(student));
  },
  answered_already: () =>
    whileAsked(async (url) => {
      await student.send('PUT', `${url}/response`, { choices: [0] });
      return teacher.send('PUT', `${url}/question`, { version: 1, form: 'one', choices: ['Yes', 'No', 'Never'] });
    }),
};

test.each(Object.keys(ASKING) as (keyof typeof ASKING)[])('%s is met and told', async (code) => {
  expect(await WAYS[code]()).toBe(code);
});
