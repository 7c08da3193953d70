import fs from 'node:fs';
import path from 'node:path';
import cookie from '@fastify/cookie';
import formBody from '@fastify/formbody';
import multipart from '@fastify/multipart';
import websocket from '@fastify/websocket';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance, type FastifyRequest, type RouteOptions } from 'fastify';
import { LONGEST_LIVE_MESSAGE } from '@avrelle/core/wire';
import { accountRoutes } from './accounts/routes';
import { readAsker } from './accounts/session';
import { annotationRoutes } from './annotations/routes';
import { assignmentRoutes } from './assignments/routes';
import { discussionRoutes } from './discussion/routes';
import { groupRoutes } from './groups/routes';
import { questionRoutes } from './questions/routes';
import { reviewRoutes } from './review/routes';
import { studyRoutes } from './study/routes';
import { walkthroughRoutes } from './walkthroughs/routes';
import { calendarRoutes } from './calendar/routes';
import { heldRoutes } from './held/routes';
import { classRoutes } from './classes/routes';
import { joiningRoutes } from './joining/routes';
import type { Context } from './context';
import { draftRoutes } from './drafts/routes';
import { feedRoutes } from './feeds/routes';
import { collectionItemRoutes, collectionRoutes } from './library/collections';
import { libraryRoutes } from './library/routes';
import { liveRoutes } from './live/routes';
import { checkOrigin } from './serve';
import { searchRoutes } from './library/searches';
import { tagRoutes } from './library/tags';
import { topicRoutes } from './library/topics';
import { batchRoutes } from './batches/routes';
import { noteRoutes } from './notes/routes';
import { notificationRoutes } from './notifications/routes';
import { mailRoutes } from './mail/routes';
import { deskRoutes } from './desk/routes';
import { AppError } from './errors';
import { sendProblem } from './problems';
import { eventRoutes } from './events/routes';
import { findRoutes } from './find/routes';
import { legendRoutes } from './legend/routes';
import { jobRoutes } from './jobs/routes';
import { pictureRoutes } from './pictures/routes';
import { openApiRoutes } from './openapi/routes';
import { snapshotRoutes } from './snapshots/routes';
import { sourceRoutes } from './sources/routes';
import { importRoutes } from './import/routes';
import { listExportRoutes } from './export/lists';
import { exportRoutes } from './export/routes';
import { versionRoutes } from './versions/routes';
import { webPages } from './web-pages';

const BODY_LIMIT = 4 * 1024 * 1024;
/** Our own pages load nothing from anywhere else; snapshots have a stricter policy of their own. */
const POLICY =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; font-src 'self' data:; connect-src 'self'; frame-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'self'";

/** Nothing of ours asks for any of these. */
const PERMISSIONS = 'camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=(), interest-cohort=()';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** Answers who is not signed in as well. */
    open?: boolean;
    /** Answers only who signed in, no program with a token. */
    browserOnly?: boolean;
  }
}

const ROUTES = [
  accountRoutes,
  sourceRoutes,
  versionRoutes,
  annotationRoutes,
  legendRoutes,
  noteRoutes,
  pictureRoutes,
  classRoutes,
  joiningRoutes,
  assignmentRoutes,
  discussionRoutes,
  groupRoutes,
  heldRoutes,
  questionRoutes,
  calendarRoutes,
  walkthroughRoutes,
  studyRoutes,
  reviewRoutes,
  liveRoutes,
  libraryRoutes,
  searchRoutes,
  tagRoutes,
  topicRoutes,
  collectionRoutes,
  collectionItemRoutes,
  findRoutes,
  deskRoutes,
  notificationRoutes,
  exportRoutes,
  listExportRoutes,
  importRoutes,
  snapshotRoutes,
  jobRoutes,
  draftRoutes,
  batchRoutes,
  feedRoutes,
  mailRoutes,
  eventRoutes,
  openApiRoutes,
];

/** `onRoute` is told of every route; for tests that walk all of them. */
export async function buildApp(context: Context, onRoute?: (route: RouteOptions) => void): Promise<FastifyInstance> {
  const app = Fastify({
    logger: false,
    bodyLimit: BODY_LIMIT,
    trustProxy: context.config.trustProxy,
    forceCloseConnections: true,
    routerOptions: { querystringParser: (text) => Object.fromEntries(new URLSearchParams(text)) },
  });
  if (onRoute) app.addHook('onRoute', onRoute);
  await app.register(cookie);
  await app.register(formBody);
  await app.register(multipart);
  await app.register(websocket, { options: { maxPayload: LONGEST_LIVE_MESSAGE } });
  app.decorateRequest('person', null);
  app.decorateRequest('scope', null);
  addHooks(app, context);
  app.setErrorHandler(sendProblem);
  for (const routes of ROUTES) routes(app, context);
  await serveWeb(app, context.config.webFolder);
  return app;
}

function addHooks(app: FastifyInstance, context: Context): void {
  app.addHook('onRequest', (request, _reply, done) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') checkOrigin(request.headers.origin, request.host);
    readAsker(context, request);
    checkScope(request);
    // Before anything is read of what a stranger sends.
    const sends = request.method !== 'GET' && request.method !== 'HEAD';
    if (sends && !request.is404 && request.person === null && !request.routeOptions.config.open)
      throw new AppError('signed_out');
    done();
  });
  app.addHook('onSend', (request, reply, _payload, done) => {
    if (!reply.hasHeader('content-security-policy')) reply.header('content-security-policy', POLICY);
    if (request.url.startsWith('/api/') && !reply.hasHeader('cache-control')) reply.header('cache-control', 'no-store');
    if (context.config.secureCookies) reply.header('strict-transport-security', 'max-age=31536000');
    reply
      .header('x-content-type-options', 'nosniff')
      .header('referrer-policy', 'same-origin')
      .header('permissions-policy', PERMISSIONS)
      .header('cross-origin-opener-policy', 'same-origin');
    done();
  });
}

/** What the token of a program does not reach. */
function checkScope({ scope, method, routeOptions }: FastifyRequest): void {
  if (scope === null) return;
  if (routeOptions.config.browserOnly || routeOptions.config.open) throw new AppError('browser_only');
  if (scope === 'read' && method !== 'GET' && method !== 'HEAD') throw new AppError('token_scope');
}

async function serveWeb(app: FastifyInstance, folder: string): Promise<void> {
  const root = path.resolve(folder);
  const built = fs.existsSync(path.join(root, 'index.html'));
  const page = built ? webPages(root) : () => '';
  if (built) {
    await app.register(fastifyStatic, {
      root,
      wildcard: false,
      index: false,
      cacheControl: false,
      preCompressed: true,
      setHeaders: (reply, file) => {
        reply.setHeader(
          'cache-control',
          file.includes(`${path.sep}assets${path.sep}`) ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
      },
    });
  }
  app.setNotFoundHandler((request, reply) => {
    const isPage =
      built && request.method === 'GET' && !/^\/(api|snapshots|drafts|files|pictures|assets)\//.test(request.url);
    if (isPage)
      return reply
        .header('cache-control', 'no-cache')
        .type('text/html')
        .send(page(request.url.split('?')[0]!, request.person !== null && !('version' in (request.query as object))));
    return sendProblem(new AppError('not_found', { what: 'page' }), request, reply);
  });
}
