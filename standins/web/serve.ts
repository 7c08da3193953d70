import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { TROUBLES } from './trouble';

const TYPES: Readonly<Record<string, string>> = { '.html': 'text/html', '.css': 'text/css; charset=utf-8', '.svg': 'image/svg+xml', '.woff2': 'font/woff2', '.txt': 'text/plain; charset=utf-8', '.md': 'text/markdown; charset=utf-8' };

export interface LittleWeb {
  readonly port: number;
  /** Which edition of a page is out: `host/path` shows `path.EDITION.html` where there is one, else the newest, `path.html`. */
  show(page: string, edition: number): void;
  close(): Promise<void>;
}

export interface WebFolders {
  /** One folder per host. */
  readonly sites: string;
  /** A web font served as `/fonts/literata.woff2` by every host. */
  readonly font: string;
}

/** The simulated web: every host of `saltmere.test` on one port. */
export function serveLittleWeb(folders: WebFolders, port: number): Promise<LittleWeb> {
  const editions = new Map<string, number>();
  const server = http.createServer((request, response) => {
    const host = (request.headers.host ?? '').split(':')[0]!;
    const { pathname } = new URL(request.url ?? '/', 'http://any');
    if (host === 'trouble.saltmere.test' && TROUBLES[pathname]) return TROUBLES[pathname](response);
    const file = pathname === '/fonts/literata.woff2' ? folders.font : fileFor(path.join(folders.sites, host), pathname, editions.get(host + pathname));
    if (!file) return void response.writeHead(404, { 'content-type': 'text/html' }).end('<p>No such page.</p>');
    response.writeHead(200, { 'content-type': TYPES[path.extname(file)] ?? 'application/octet-stream' });
    fs.createReadStream(file).pipe(response);
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () => resolve({
      port: (server.address() as { port: number }).port,
      show: (page, edition) => void editions.set(page, edition),
      close: () => new Promise((done) => { server.closeAllConnections(); server.close(() => done()); }),
    }));
  });
}

/** The file a path names, with or without `.html`; never outside the site's folder. */
function fileFor(site: string, pathname: string, edition?: number): string | undefined {
  const wanted = path.join(site, path.normalize(decodeURIComponent(pathname)));
  if (!wanted.startsWith(site + path.sep)) return undefined;
  return [`${wanted}.${edition}.html`, wanted, `${wanted}.html`].find((file) => fs.existsSync(file) && fs.statSync(file).isFile());
}
