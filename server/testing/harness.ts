import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { FastifyInstance, InjectOptions } from 'fastify';
import { v7 } from 'uuid';
import type { Job, Me, JobId, SourceId } from '@avrelle/core/wire';
import { buildApp } from '../app';
import type { Clock } from '../clock';
import { readConfig } from '../config';
import type { Context } from '../context';
import { ENDPOINTS, type Method, type NamedEndpoint } from '@avrelle/core/api';
import { openDatabase, type Db } from '../db/database';
import { directIngester, type Ingester } from '../ingest/ingester';
import { openContext } from '../open-context';
import { serveLittleWeb, type LittleWeb } from '../../standins/web/serve';

export const ROOT = fileURLToPath(new URL('../../', import.meta.url));

/** A whole server over a database in memory, spoken to without a network. */
export interface Server {
  /** Every route, as registered. */
  readonly routes: readonly { readonly method: string; readonly url: string }[];
  readonly app: FastifyInstance;
  readonly context: Context;
  /** Makes an account and gives back somebody who sends requests under it. */
  person(name: string): Promise<Client>;
  readonly nobody: Client;
  close(): Promise<void>;
}

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Readonly<Record<string, unknown>>;
  readonly text: string;
}

export interface Client {
  readonly me: Me;
  send<T = never>(method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', url: string, body?: unknown): Promise<Answer<T>>;
  readonly cookie: string;
  /** Uploads files (the first, and beside a recording its words) with fields, and gives what the job said. */
  keepFile(
    name: string,
    bytes: Uint8Array,
    more?: {
      readonly fields?: Readonly<Record<string, string>>;
      readonly transcript?: readonly [name: string, bytes: Uint8Array];
    },
  ): Promise<Finished>;
  /** Waits for a job. */
  done(jobId: JobId): Promise<Finished>;
  /** Keeps a text file as a source and gives its id. */
  keepText(title: string, text: string): Promise<string>;
  /** Uploads a newer file of a source and gives what the job said. */
  keepAgain(sourceId: SourceId, text: string): Promise<Finished>;
}

export async function startServer(
  options: { db?: Db; ingester?: Ingester; env?: Record<string, string>; web?: LittleWeb; now?: Clock } = {},
): Promise<Server> {
  const config = readConfig({
    AVRELLE_WEB: '/nowhere',
    ...(options.web ? { AVRELLE_NAMES: `saltmere.test=127.0.0.1:${options.web.port}` } : {}),
    ...options.env,
  });
  const db = options.db ?? openDatabase(':memory:');
  const context = openContext({
    config,
    ingester: options.ingester ?? directIngester(config, db),
    db,
    sitePause: 0,
    ...(options.now ? { now: options.now } : {}),
  });
  const routes: { method: string; url: string }[] = [];
  const app = await buildApp(context, (route) =>
    routes.push(...[route.method].flat().map((method) => ({ method, url: route.url }))),
  );
  context.jobs.start();
  const clientFor = (me: Me, cookie: string): Client => clientOf(app, me, cookie);
  return {
    app,
    context,
    routes,
    nobody: clientFor({ id: '', name: '', email: '', role: 'member' }, ''),
    person: async (name) => {
      const answer = await app.inject({
        method: 'POST',
        url: '/api/people',
        remoteAddress: `10.0.0.${Math.floor(Math.random() * 250)}`,
        payload: {
          email: `${name.toLowerCase().replace(/\W+/g, '.')}@college.saltmere.test`,
          name,
          password: 'a long enough password',
        },
      });
      if (answer.statusCode !== 200) throw new Error(answer.body);
      return clientFor(answer.json(), String(answer.headers['set-cookie']).split(';')[0]!);
    },
    close: async () => {
      context.live.close();
      context.events.close();
      await context.jobs.stop();
      await app.close();
      context.db.close();
    },
  };
}

/** Somebody who sends requests under a session; '' for nobody. */
function clientOf(app: FastifyInstance, me: Me, cookie: string): Client {
  const send: Client['send'] = async (method, url, body) => {
    const answer = await app.inject({
      method,
      url,
      headers: cookie ? { cookie } : {},
      ...(body === undefined ? {} : { payload: body as InjectOptions['payload'] }),
    } as InjectOptions);
    const isJson = String(answer.headers['content-type']).includes('json');
    if (answer.statusCode === 200) checkAnswer(method, url, isJson ? answer.json() : undefined);
    return {
      status: answer.statusCode,
      body: (isJson ? answer.json() : undefined) as never,
      headers: answer.headers,
      text: answer.body,
    };
  };
  const keepFile: Client['keepFile'] = (name, bytes, { fields = {}, transcript } = {}) =>
    upload(app, cookie, [...(name ? [[name, bytes] as const] : []), ...(transcript ? [transcript] : [])], fields);
  const keepAgain = (sourceId: SourceId, text: string): Promise<Finished> =>
    keepFile('newer.txt', Buffer.from(text), { fields: { source: sourceId } });
  return {
    me,
    cookie,
    send,
    keepFile,
    keepAgain,
    done: (id) => finished(app, cookie, id),
    keepText: async (title, text) => {
      const job = await keepFile(`${title}.txt`, Buffer.from(text));
      if (!job.sourceId) throw new Error(JSON.stringify(job));
      return job.sourceId;
    },
  };
}

/** The schema of what is answered; a path without ids comes before one with. */
function answerOf(method: Method, url: string): NamedEndpoint['answer'] | undefined {
  const [path = ''] = url.split('?');
  const asked = ENDPOINTS.filter((endpoint) => endpoint.method === method);
  const fits = (pattern: string): boolean => new RegExp(`^${pattern.replace(/:\w+/g, '[^/]+')}$`).test(path);
  return (asked.find((e) => e.path === path) ?? asked.find((e) => fits(e.path)))?.answer;
}

/** Of a long list so many of its beginning and of its end are looked at. */
const LOOKED_AT = 5;

/** What the contract says an answer is, it has to be, to the type. */
function checkAnswer(method: Method, url: string, answer: unknown): void {
  answerOf(method, url)?.validateSync(shortened(answer), { strict: true });
}

function shortened(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (!Array.isArray(value)) return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, shortened(v)]));
  const some = value.length > 2 * LOOKED_AT ? [...value.slice(0, LOOKED_AT), ...value.slice(-LOOKED_AT)] : value;
  return some.map(shortened);
}

async function upload(
  app: FastifyInstance,
  cookie: string,
  files: readonly (readonly [name: string, bytes: Uint8Array])[],
  fields: Readonly<Record<string, string>>,
): Promise<Finished> {
  const id = v7();
  const boundary = 'saltmere';
  const part = (head: string, body: Uint8Array): Buffer =>
    Buffer.concat([
      Buffer.from(`--${boundary}\r\ncontent-disposition: form-data; ${head}\r\n\r\n`),
      body,
      Buffer.from('\r\n'),
    ]);
  const payload = Buffer.concat([
    ...Object.entries(fields).map(([name, value]) => part(`name="${name}"`, Buffer.from(value))),
    ...files.map(([name, bytes]) =>
      part(`name="file"; filename="${name}"\r\ncontent-type: application/octet-stream`, bytes),
    ),
    Buffer.from(`--${boundary}--\r\n`),
  ]);
  const sent = await app.inject({
    method: 'POST',
    url: `/api/uploads/${id}`,
    headers: { cookie, 'content-type': `multipart/form-data; boundary=${boundary}` },
    payload,
  });
  if (sent.statusCode !== 200) throw new Error(sent.body);
  return finished(app, cookie, id);
}

export type Finished = Job;

/** Asks until a job has ended; each question waits for the event loop, so the job moves on between them. */
export async function finished(app: FastifyInstance, cookie: string, id: string): Promise<Finished> {
  for (;;) {
    const job = (await app.inject({ method: 'GET', url: `/api/jobs/${id}`, headers: { cookie } })).json();
    if (job.state === 'done' || job.state === 'failed') return job;
    await new Promise((next) => setTimeout(next, 5));
  }
}

export const littleWeb = (port = 0): Promise<LittleWeb> =>
  serveLittleWeb(
    {
      sites: path.join(ROOT, 'standins/web/sites'),
      font: path.join(ROOT, 'node_modules/@fontsource-variable/literata/files/literata-latin-wght-normal.woff2'),
    },
    port,
  );
