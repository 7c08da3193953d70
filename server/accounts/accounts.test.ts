import type { Welcome } from '@avrelle/core/wire';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startServer, type Client, type Server } from '../testing/harness';
import { COOKIE } from './session';

let server: Server;
let first: Client;
beforeAll(async () => {
  server = await startServer();
  first = await server.person('First');
});
afterAll(() => server.close());

test('the first account is the administrator’s, the next is not', async () => {
  expect([first.me.role, (await server.person('Second')).me.role]).toEqual(['administrator', 'member']);
});

test('passwords are stored with argon2id, session tokens hashed', async () => {
  const { passwordHash } = server.context.db.get<{ passwordHash: string }>('SELECT password_hash FROM person LIMIT 1')!;
  expect(passwordHash).toMatch(/^\$argon2id\$v=19\$m=65536,t=3,p=1\$/);
  const signed = await server.app.inject({
    method: 'POST',
    url: '/api/session',
    payload: { email: 'first@college.saltmere.test', password: 'a long enough password' },
  });
  const cookie = signed.cookies.find((c) => c.name === COOKIE)!;
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax', path: '/' });
  expect(JSON.stringify(server.context.db.all('SELECT * FROM session'))).not.toContain(cookie.value);
});

test('signing out ends the session', async () => {
  const leaver = await server.person('Leaver');
  expect((await leaver.send('DELETE', '/api/session')).status).toBe(204);
  expect((await leaver.send('GET', '/api/sources')).status).toBe(401);
});

test('twenty wrong passwords end in a wait, and the right one then waits too', async () => {
  const tryOne = (password: string) =>
    server.app.inject({
      method: 'POST',
      url: '/api/session',
      remoteAddress: '10.3.3.3',
      payload: { email: 'first@college.saltmere.test', password },
    });
  const statuses = [];
  for (let n = 0; n < 20; n++) statuses.push((await tryOne('wrong')).statusCode);
  expect([statuses.filter((s) => s === 401).length, statuses.filter((s) => s === 429).length]).toEqual([12, 8]);
  const blocked = await tryOne('a long enough password');
  expect(blocked.json().detail).toMatch(/Wait .+ and try again/);
  // From elsewhere its owner still comes in; an account that is tried from everywhere waits at last.
  const from = (remoteAddress: string, password: string, email = 'first') =>
    server.app.inject({
      method: 'POST',
      url: '/api/session',
      remoteAddress,
      payload: { email: `${email}@college.saltmere.test`, password },
    });
  expect((await from('10.3.3.4', 'a long enough password')).statusCode).toBe(200);
  const spread = [];
  for (let n = 0; n < 52; n++) spread.push((await from(`10.9.9.${n}`, 'wrong', 'second')).statusCode);
  expect(spread.at(-1)).toBe(429);
}, 60_000);

test('a whole class signs in from one room, although some mistype', async () => {
  const names = Array.from({ length: 16 }, (_, n) => `Student${n}`);
  for (const name of names) await server.person(name);
  const signIn = async (name: string, password: string) =>
    (
      await server.app.inject({
        method: 'POST',
        url: '/api/session',
        remoteAddress: '10.6.6.6',
        payload: { email: `${name.toLowerCase()}@college.saltmere.test`, password },
      })
    ).statusCode;
  const statuses = [];
  for (const name of names) statuses.push(await signIn(name, 'mistyped'), await signIn(name, 'a long enough password'));
  expect(statuses).toEqual(names.flatMap(() => [401, 200]));
}, 60_000);

test('what a proxy forwards is believed of so many proxies as there are, and of no others', async () => {
  const tried = async (env: Record<string, string>) => {
    const one = await startServer({ env });
    const seen = new Set<string>();
    one.app.get('/api/test-ip', (request) => {
      seen.add(request.ip);
      return '';
    });
    await one.app.inject({
      method: 'GET',
      url: '/api/test-ip',
      remoteAddress: '10.0.0.1',
      headers: { 'x-forwarded-for': '1.1.1.1, 2.2.2.2' },
    });
    await one.close();
    return [...seen];
  };
  expect(
    await Promise.all(
      [
        {},
        { AVRELLE_PROXY: '1' },
        { AVRELLE_PROXY: '2' },
        { AVRELLE_PROXY: '10.0.0.1' },
        { AVRELLE_PROXY: '10.0.0.9' },
      ].map((env) => tried(env as Record<string, string>)),
    ),
  ).toEqual([['10.0.0.1'], ['2.2.2.2'], ['1.1.1.1'], ['2.2.2.2'], ['10.0.0.1']]);
  await expect(startServer({ env: { AVRELLE_PROXY: 'maybe' } })).rejects.toThrow(/how many proxies/);
});

test('so many accounts are made from one address, and no more for a while', async () => {
  const make = async () =>
    (
      await server.app.inject({
        method: 'POST',
        url: '/api/people',
        remoteAddress: '10.8.8.8',
        payload: { email: 'ines@college.saltmere.test', name: 'Ines', password: 'password12' },
      })
    ).statusCode;
  const statuses = [];
  for (let n = 0; n < 61; n++) statuses.push(await make());
  expect([new Set(statuses.slice(0, 60)), statuses[60]]).toEqual([new Set([400]), 429]);
});

test('nothing is read of what strangers send, and answers are stored by nobody', async () => {
  const large = await server.app.inject({
    method: 'PUT',
    url: '/api/annotations/x',
    headers: { 'content-type': 'application/json' },
    payload: `"${'x'.repeat(3_000_000)}"`,
  });
  expect([
    large.statusCode,
    large.headers['cache-control'],
    large.headers['cross-origin-opener-policy'],
    large.headers['strict-transport-security'],
  ]).toEqual([401, 'no-store', 'same-origin', undefined]);
  expect(
    (
      await server.app.inject({
        method: 'POST',
        url: '/api/session',
        payload: { email: 'a@b.test', password: 'x'.repeat(20_000) },
      })
    ).statusCode,
  ).toBe(413);
  const secure = await startServer({ env: { AVRELLE_HTTPS: 'yes' } });
  expect((await secure.nobody.send('GET', '/api/welcome')).headers['strict-transport-security']).toBe(
    'max-age=31536000',
  );
  await secure.close();
});

test('a change from another site is refused, one from our own is not', async () => {
  const from = (origin: string) =>
    server.app.inject({
      method: 'POST',
      url: '/api/session',
      headers: { origin, host: 'avrelle.test' },
      remoteAddress: '10.4.4.4',
      payload: { email: 'first@college.saltmere.test', password: 'a long enough password' },
    });
  expect([
    (await from('http://elsewhere.test')).statusCode,
    (await from('null')).statusCode,
    (await from('http://avrelle.test')).statusCode,
  ]).toEqual([403, 403, 200]);
});

test('weak or missing fields are named', async () => {
  const send = async (payload: object) =>
    (await server.app.inject({ method: 'POST', url: '/api/people', remoteAddress: '10.5.5.5', payload })).json();
  expect(await send({ email: 'x@y.test', name: 'X', password: 'short' })).toMatchObject({
    code: 'invalid',
    field: 'password',
    detail: 'Choose a password of at least 10 characters.',
  });
  for (const password of ['1234567890', 'password123', 'Passwort2026!!', 'aaaaaaaaaaaa', 'qwertyuiop1'])
    expect([password, (await send({ email: 'x@y.test', name: 'X', password })).code]).toEqual([
      password,
      password === 'Passwort2026!!' ? expect.anything() : 'common_password',
    ]);
  for (const name of ['Ines\u202Elessor', 'In\u200Bes', '\u3164', 'a\u0000'])
    expect((await send({ email: 'x@y.test', name, password: 'long enough words' })).field).toBe('name');
  expect(await send({ email: 'no address', name: 'X', password: 'long enough words' })).toMatchObject({
    field: 'email',
  });
});

test('nobody’s account is given away, unless a demo says so, and then only to who is not signed in', async () => {
  const server = await startServer();
  const welcome = async (who: { send: typeof server.nobody.send }) =>
    (await who.send<Welcome>('GET', '/api/welcome')).body.samples;
  expect(await welcome(server.nobody)).toEqual([]);
  const sample = { name: 'Ines Kestle', about: 'A student.', email: 'ines@college.saltmere.test', password: 'x' };
  Object.assign(server.context, { samples: [sample] });
  expect(await welcome(server.nobody)).toEqual([sample]);
  expect(await welcome(await server.person('Reader'))).toEqual([]);
  await server.close();
});
