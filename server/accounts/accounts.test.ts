import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startServer, type Client, type Server } from '../testing/harness';
import { COOKIE } from './session';

let server: Server, first: Client;
beforeAll(async () => { server = await startServer(); first = await server.person('First'); });
afterAll(() => server.close());

test('the first account is the administrator’s, the next is not', async () => {
  expect([first.me.role, (await server.person('Second')).me.role]).toEqual(['administrator', 'member']);
});

test('passwords are stored with argon2id, session tokens hashed', async () => {
  const { password_hash } = server.context.db.get<{ password_hash: string }>('SELECT password_hash FROM person LIMIT 1')!;
  expect(password_hash).toMatch(/^\$argon2id\$v=19\$m=65536,t=3,p=1\$/);
  const signed = await server.app.inject({ method: 'POST', url: '/api/session', payload: { email: 'first@college.saltmere.test', password: 'a long enough password' } });
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
  const tryOne = (password: string) => server.app.inject({ method: 'POST', url: '/api/session', remoteAddress: '10.3.3.3', payload: { email: 'first@college.saltmere.test', password } });
  const statuses = [];
  for (let n = 0; n < 20; n++) statuses.push((await tryOne('wrong')).statusCode);
  expect([statuses.filter((s) => s === 401).length, statuses.filter((s) => s === 429).length]).toEqual([12, 8]);
  const blocked = await tryOne('a long enough password');
  expect(blocked.json().detail).toMatch(/Wait .+ and try again/);
});

test('a change from another site is refused, one from our own is not', async () => {
  const from = (origin: string) => server.app.inject({ method: 'POST', url: '/api/session', headers: { origin, host: 'avrelle.test' }, remoteAddress: '10.4.4.4', payload: { email: 'first@college.saltmere.test', password: 'a long enough password' } });
  expect([(await from('http://elsewhere.test')).statusCode, (await from('null')).statusCode, (await from('http://avrelle.test')).statusCode]).toEqual([403, 403, 200]);
});

test('weak or missing fields are named', async () => {
  const send = async (payload: object) => (await server.app.inject({ method: 'POST', url: '/api/people', remoteAddress: '10.5.5.5', payload })).json();
  expect(await send({ email: 'x@y.test', name: 'X', password: 'short' })).toMatchObject({ code: 'invalid', field: 'password', detail: 'Choose a password of at least 10 characters.' });
  expect(await send({ email: 'no address', name: 'X', password: 'long enough words' })).toMatchObject({ field: 'email' });
});
