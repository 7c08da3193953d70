import { expect, test } from '@jest/globals';
import fastify from 'fastify';
import { sealed } from './sealed';

// Browsers' names as their makers document them, the versions from memory.
const MAC = 'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7)';
const TABLET = 'Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko)';
test.each([
  ['WebKit', `${MAC} AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.0 Safari/605.1.15`, true],
  ['another browser on a tablet whose engine is WebKit', `${TABLET} CriOS/120.0.0.0 Mobile/15E148 Safari/604.1`, true],
  ['Blink', `${MAC} AppleWebKit/537.36 (KHTML, like Gecko) Chrome/120.0.0.0 Safari/537.36`, false],
  ['Gecko', 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0', false],
  ['no name', '', false],
])(
  'in %s the page runs no script of its own; only WebKit must have scripting for our listeners',
  async (_, name, has) => {
    const app = fastify();
    app.get('/', (request, reply) => sealed(request, reply, Buffer.from('<p>words')));
    const { headers } = await app.inject({ url: '/', headers: { 'user-agent': name } });
    const parts = String(headers['content-security-policy']).split('; ');
    expect(parts).toContain("script-src 'none'");
    expect(parts).toContain(has ? 'sandbox allow-same-origin allow-scripts' : 'sandbox allow-same-origin');
    // A cache between must not give one browser's answer to another.
    expect(headers.vary).toBe('user-agent');
  },
);
