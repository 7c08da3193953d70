import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import zlib from 'node:zlib';
import { TROUBLES } from './trouble';

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.css': 'text/css; charset=utf-8',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.woff2': 'font/woff2',
  '.txt': 'text/plain; charset=utf-8',
  '.md': 'text/markdown; charset=utf-8',
  '.rss': 'application/rss+xml',
  '.atom': 'application/atom+xml',
  '.json': 'application/feed+json',
  '.pdf': 'application/pdf',
  '.epub': 'application/epub+zip',
};
/** Files whose server says their encoding, and how some are sent. */
const HEADERS: Readonly<Record<string, string>> = {
  'lagoon.saltmere.test/headered.html': 'text/html; charset=iso-8859-7',
};
const PACKED: Readonly<Record<string, 'gzip' | 'br'>> = {
  'studio.saltmere.test/kept-light.html': 'gzip',
  'posts.saltmere.test/line-e.html': 'br',
};

export interface LittleWeb {
  readonly port: number;
  /** Which edition of a page is out: `host/path` shows `path.EDITION.html` where there is one, else the newest, `path.html`. */
  show(page: string, edition: number): void;
  /** How often each `host/path` was asked for. */
  readonly asked: ReadonlyMap<string, number>;
  close(): Promise<void>;
}

export interface WebFolders {
  /** One folder per host. */
  readonly sites: string;
  /** A web font served as `/fonts/literata.woff2` by every host. */
  readonly font: string;
}

/** The simulated web: every host of `saltmere.test` on one port, with and without `www.`. */
export function serveLittleWeb(folders: WebFolders, port: number): Promise<LittleWeb> {
  const editions = new Map<string, number>();
  const asked = new Map<string, number>();
  const server = http.createServer((request, response) => {
    const host = (request.headers.host ?? '').split(':')[0]!.replace(/^www\./, '');
    const { pathname } = new URL(request.url ?? '/', 'http://any');
    asked.set(host + pathname, (asked.get(host + pathname) ?? 0) + 1);
    if (host === 'trouble.saltmere.test' && TROUBLES[pathname]) return TROUBLES[pathname](response, request);
    const file =
      pathname === '/fonts/literata.woff2'
        ? folders.font
        : fileFor(path.join(folders.sites, host), pathname, editions.get(host + pathname));
    if (!file) return void response.writeHead(404, { 'content-type': 'text/html' }).end('<p>No such page.</p>');
    send(response, file, path.relative(folders.sites, file));
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () =>
      resolve({
        port: (server.address() as { port: number }).port,
        asked,
        show: (page, edition) => void editions.set(page, edition),
        close: () =>
          new Promise((done) => {
            server.closeAllConnections();
            server.close(() => done());
          }),
      }),
    );
  });
}

function send(response: http.ServerResponse, file: string, name: string): void {
  const packed = PACKED[name];
  const type = HEADERS[name] ?? TYPES[path.extname(file)] ?? 'application/octet-stream';
  response.writeHead(200, { 'content-type': type, ...(packed ? { 'content-encoding': packed } : {}) });
  const bytes = fs.createReadStream(file);
  if (packed) bytes.pipe(packed === 'gzip' ? zlib.createGzip() : zlib.createBrotliCompress()).pipe(response);
  else bytes.pipe(response);
}

/** The file a path names, with or without `.html` or a slash at its end; never outside the site's folder. */
function fileFor(site: string, pathname: string, edition?: number): string | undefined {
  const wanted = path.join(site, path.normalize(decodeURIComponent(pathname))).replace(/\/$/, '');
  if (!wanted.startsWith(site + path.sep)) return undefined;
  return [`${wanted}.${edition}.html`, wanted, `${wanted}.html`].find(
    (file) => fs.existsSync(file) && fs.statSync(file).isFile(),
  );
}
