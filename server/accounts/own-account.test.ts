import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { ENDPOINTS } from '@avrelle/core/api';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let admin: Client;
let mara: Client;
beforeAll(async () => {
  server = await startServer();
  admin = await server.person('Admin');
  mara = await server.person('Mara');
});
afterAll(() => server.close());

const PASSWORD = 'a long enough password';
const signIn = async (email: string, password: string, agent = 'Test/1.0') => {
  const answer = await server.app.inject({
    method: 'POST',
    url: '/api/session',
    headers: { 'user-agent': agent },
    payload: { email, password },
  });
  return {
    status: answer.statusCode,
    code: answer.json().code,
    cookie: String(answer.headers['set-cookie']).split(';')[0]!,
  };
};
const asks = async (headers: Record<string, string>, method: 'GET' | 'PUT' | 'POST' = 'GET', url = '/api/classes') =>
  (await server.app.inject({ method, url, headers })).statusCode;

test('a password is changed by who knows the one before; every other session ends, this one stays', async () => {
  const elsewhere = await signIn(mara.me.email, PASSWORD);
  const change = (current: string, password: string) =>
    mara.send<{ code: string; field?: string }>('PUT', '/api/account/password', { current, password });
  expect((await change('not that one', 'sea lavender at dusk')).body).toMatchObject({
    code: 'wrong_password',
    field: 'current',
  });
  expect((await change(PASSWORD, 'password123')).body).toMatchObject({ code: 'common_password', field: 'password' });
  expect((await change(PASSWORD, 'sea lavender at dusk')).status).toBe(204);
  expect([await asks({ cookie: elsewhere.cookie }), await asks({ cookie: mara.cookie })]).toEqual([401, 200]);
  expect((await signIn(mara.me.email, PASSWORD)).status).toBe(401);
  expect((await signIn(mara.me.email, 'sea lavender at dusk')).status).toBe(200);
});

test('a name is changed for everybody who reads it', async () => {
  expect((await mara.send('PATCH', '/api/account', { name: 'Mara Quill' })).body).toMatchObject({ name: 'Mara Quill' });
  expect((await mara.send<{ me: { name: string } }>('GET', '/api/welcome')).body.me.name).toBe('Mara Quill');
  expect((await mara.send('PATCH', '/api/account', { name: 'In\u200Bes' })).status).toBe(400);
});

test('sessions say where they are; one is ended alone, or all others at once; nobody ends those of others', async () => {
  const ines = await server.person('Ines');
  const [phone, school] = [
    await signIn(ines.me.email, PASSWORD, 'Phone'),
    await signIn(ines.me.email, PASSWORD, 'School'),
  ];
  type Rows = { id: string; agent: string; here: boolean }[];
  const { body: rows } = await ines.send<Rows>('GET', '/api/account/sessions');
  expect(rows.map((row) => [row.agent, row.here])).toEqual(
    expect.arrayContaining([
      ['Phone', false],
      ['School', false],
      [expect.any(String), true],
    ]),
  );
  const phoneId = rows.find((row) => row.agent === 'Phone')!.id;
  expect((await mara.send('DELETE', `/api/account/sessions/${phoneId}`)).status).toBe(404);
  expect((await ines.send('DELETE', `/api/account/sessions/${phoneId}`)).status).toBe(204);
  expect([await asks({ cookie: phone.cookie }), await asks({ cookie: school.cookie })]).toEqual([401, 200]);
  await ines.send('DELETE', '/api/account/sessions');
  expect([await asks({ cookie: school.cookie }), await asks({ cookie: ines.cookie })]).toEqual([401, 200]);
});

test('a token lets a program do what it says, until it ends or is taken back; it is stored hashed', async () => {
  const make = async (scope: string) => {
    const id = v7();
    const { body } = await mara.send<{ token: string }>('PUT', `/api/account/tokens/${id}`, {
      name: 'Notes',
      scope,
      days: 30,
    });
    return { id, headers: { authorization: `Bearer ${body.token}` }, token: body.token };
  };
  const [reads, writes] = [await make('read'), await make('write')];
  const newClass = `/api/classes/${v7()}`;
  const put = async (headers: Record<string, string>) =>
    (
      await server.app.inject({
        method: 'PUT',
        url: newClass,
        headers,
        payload: { name: 'By a program', tint: 'moss' },
      })
    ).statusCode;
  expect([await asks(reads.headers), await put(reads.headers), await put(writes.headers)]).toEqual([200, 403, 200]);
  expect(JSON.stringify(server.context.db.all('SELECT * FROM token'))).not.toContain(reads.token);
  const { body: rows } = await mara.send<{ id: string; usedAt: string | null }[]>('GET', '/api/account/tokens');
  expect(rows.find((row) => row.id === reads.id)!.usedAt).not.toBeNull();
  expect((await admin.send('DELETE', `/api/account/tokens/${reads.id}`)).status).toBe(404);
  await mara.send('DELETE', `/api/account/tokens/${reads.id}`);
  server.context.db.run("UPDATE token SET expires_at = '2020-01-01T00:00:00.000Z' WHERE id = ?", writes.id);
  expect([await asks(reads.headers), await asks(writes.headers)]).toEqual([401, 401]);
});

test('no token reaches what only its owner may do, nor what only an administrator may', async () => {
  const { body } = await admin.send<{ token: string }>('PUT', `/api/account/tokens/${v7()}`, {
    name: 'All',
    scope: 'write',
    days: 7,
  });
  const guarded = ENDPOINTS.filter(({ who }) => who === 'browser' || who === 'administrator');
  expect(guarded.length).toBeGreaterThan(10);
  for (const { method, path } of guarded) {
    const answer = await server.app.inject({
      method,
      url: path.replace(/:\w+/g, v7()),
      headers: { authorization: `Bearer ${body.token}` },
      ...(method === 'GET' || method === 'DELETE' ? {} : { payload: {} }),
    });
    expect([method, path, answer.json().code]).toEqual([method, path, 'browser_only']);
  }
});

test('an administrator finds accounts, suspends and opens them, and gives a new password; nobody else does', async () => {
  const lost = await server.person('Lost');
  const { body } = await lost.send<{ token: string }>('PUT', `/api/account/tokens/${v7()}`, {
    name: 'x',
    scope: 'read',
    days: 7,
  });
  const bearer = { authorization: `Bearer ${body.token}` };
  type Page = { people: { id: string; suspended: boolean }[]; total: number };
  const found = async (search: string) => (await admin.send<Page>('GET', `/api/people?search=${search}`)).body;
  expect(await found('lost%40college')).toMatchObject({ total: 1, people: [{ id: lost.me.id, suspended: false }] });
  expect(await found('%25')).toMatchObject({ total: 0 });
  expect((await mara.send('GET', '/api/people')).status).toBe(403);

  await admin.send('PUT', `/api/people/${lost.me.id}/suspension`);
  expect([await asks({ cookie: lost.cookie }), await asks(bearer)]).toEqual([401, 401]);
  expect((await signIn(lost.me.email, PASSWORD)).code).toBe('suspended');
  expect((await signIn(lost.me.email, 'wrong')).code).toBe('wrong_password');
  await admin.send('DELETE', `/api/people/${lost.me.id}/suspension`);
  expect((await signIn(lost.me.email, PASSWORD)).status).toBe(200);

  const { body: reset } = await admin.send<{ password: string }>('POST', `/api/people/${lost.me.id}/password`);
  expect((await signIn(lost.me.email, PASSWORD)).status).toBe(401);
  expect([(await signIn(lost.me.email, reset.password)).status, await asks(bearer)]).toEqual([200, 401]);
  expect((await mara.send('POST', `/api/people/${lost.me.id}/password`)).status).toBe(403);
});
