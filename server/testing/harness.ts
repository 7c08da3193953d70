import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { FastifyInstance, InjectOptions } from 'fastify';
import { v7 } from 'uuid';
import type { Me } from '@avrelle/core/wire';
import { buildApp } from '../app';
import { readConfig } from '../config';
import type { Context } from '../context';
import { openDatabase } from '../db/database';
import { directIngester, type Ingester } from '../ingest/thread-ingester';
import { openContext } from '../open-context';
import { serveLittleWeb, type LittleWeb } from '../../standins/web/serve';

export const ROOT = fileURLToPath(new URL('../../', import.meta.url));

/** A whole server over a database in memory, spoken to without a network. */
export interface Server {
  readonly app: FastifyInstance;
  readonly context: Context;
  /** Makes an account and gives back somebody who sends requests under it. */
  person(name: string): Promise<Client>;
  readonly nobody: Client;
  close(): Promise<void>;
}

export interface Answer<T> { readonly status: number; readonly body: T; readonly headers: Readonly<Record<string, unknown>>; readonly text: string }

export interface Client {
  readonly me: Me;
  send<T = never>(method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', url: string, body?: unknown): Promise<Answer<T>>;
  /** Keeps a text file as a source and gives its id. */
  keepText(title: string, text: string): Promise<string>;
  /** Uploads a newer file of a source and gives what the job said. */
  keepAgain(sourceId: string, text: string): Promise<Finished>;
}

export async function startServer(options: { ingester?: Ingester; env?: Record<string, string> } = {}): Promise<Server> {
  const config = readConfig({ AVRELLE_WEB: '/nowhere', ...options.env });
  const context = openContext({ config, ingester: options.ingester ?? directIngester(config), db: openDatabase(':memory:') });
  const app = await buildApp(context);
  context.jobs.start();
  const clientFor = (me: Me, cookie: string): Client => {
    const send: Client['send'] = async (method, url, body) => {
      const answer = await app.inject({ method, url, headers: cookie ? { cookie } : {}, ...(body === undefined ? {} : { payload: body as InjectOptions['payload'] }) } as InjectOptions);
      const isJson = String(answer.headers['content-type']).includes('json');
      return { status: answer.statusCode, body: (isJson ? answer.json() : undefined) as never, headers: answer.headers, text: answer.body };
    };
    return { me, send, keepText: async (title, text) => {
      const job = await upload(app, cookie, title, text);
      if (!job.sourceId) throw new Error(JSON.stringify(job));
      return job.sourceId;
    }, keepAgain: (sourceId, text) => upload(app, cookie, 'newer', text, sourceId) };
  };
  return {
    app, context,
    nobody: clientFor({ id: '', name: '', email: '', role: 'member' }, ''),
    person: async (name) => {
      const answer = await app.inject({ method: 'POST', url: '/api/people', remoteAddress: `10.0.0.${Math.floor(Math.random() * 250)}`, payload: { email: `${name.toLowerCase().replace(/\W+/g, '.')}@college.saltmere.test`, name, password: 'a long enough password' } });
      if (answer.statusCode !== 200) throw new Error(answer.body);
      return clientFor(answer.json(), String(answer.headers['set-cookie']).split(';')[0]!);
    },
    close: async () => { await context.jobs.stop(); await app.close(); context.db.close(); },
  };
}

async function upload(app: FastifyInstance, cookie: string, title: string, text: string, source = ''): Promise<Finished> {
  const id = v7(), boundary = 'saltmere';
  const field = source && `--${boundary}\r\ncontent-disposition: form-data; name="source"\r\n\r\n${source}\r\n`;
  const payload = `${field}--${boundary}\r\ncontent-disposition: form-data; name="file"; filename="${title}.txt"\r\ncontent-type: text/plain\r\n\r\n${text}\r\n--${boundary}--\r\n`;
  const sent = await app.inject({ method: 'POST', url: `/api/uploads/${id}`, headers: { cookie, 'content-type': `multipart/form-data; boundary=${boundary}` }, payload });
  if (sent.statusCode !== 200) throw new Error(sent.body);
  return finished(app, cookie, id);
}

export interface Finished { readonly state: string; readonly step: string; readonly sourceId: string | null; readonly error: { code: string; detail: string } | null; readonly already: boolean }

/** Asks until a job has ended; each question waits for the event loop, so the job moves on between them. */
export async function finished(app: FastifyInstance, cookie: string, id: string): Promise<Finished> {
  for (;;) {
    const job = (await app.inject({ method: 'GET', url: `/api/jobs/${id}`, headers: { cookie } })).json();
    if (job.state === 'done' || job.state === 'failed') return job;
    await new Promise((next) => setTimeout(next, 5));
  }
}

export const littleWeb = (port = 0): Promise<LittleWeb> => serveLittleWeb({ sites: path.join(ROOT, 'standins/web/sites'), font: path.join(ROOT, 'node_modules/@fontsource-variable/literata/files/literata-latin-wght-normal.woff2') }, port);
