import type { ServerResponse } from 'node:http';

type Trouble = (response: ServerResponse) => void;

const page = (body: string): string => `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Trouble</title></head><body>${body}</body></html>`;
const redirect = (to: string): Trouble => (response) => response.writeHead(302, { location: to }).end();
const html = (body: string): Trouble => (response) => response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(body));

const MEGABYTE = Buffer.alloc(1024 * 1024, 'mud ');

/** Sends `megabytes` of text, or without end, as fast as the other side takes it. */
function pour(megabytes: number): Trouble {
  return (response) => {
    response.writeHead(200, { 'content-type': 'text/html' });
    let sent = 0;
    const more = (): void => {
      while (sent < megabytes && !response.destroyed) {
        sent++;
        if (!response.write(MEGABYTE)) return void response.once('drain', more);
      }
      if (!response.destroyed) response.end();
    };
    more();
  };
}

/** A byte a second, for ever: complete never, silent never. */
function drip(response: ServerResponse): void {
  response.writeHead(200, { 'content-type': 'text/html' });
  const timer = setInterval(() => response.write('.'), 250);
  response.on('close', () => clearInterval(timer));
}

/** Every way in which the simulated web misbehaves, by path. */
export const TROUBLES: Readonly<Record<string, Trouble>> = {
  '/broken': (response) => response.writeHead(500, { 'content-type': 'text/html' }).end(page('<p>Something fell over.</p>')),
  '/locked': (response) => response.writeHead(403).end('no'),
  '/huge': pour(60),
  '/endless': drip,
  '/binary': (response) => response.writeHead(200, { 'content-type': 'application/octet-stream' }).end(Buffer.from([0, 1, 2, 3, 255, 254, 0, 9])),
  '/binary-as-html': (response) => response.writeHead(200, { 'content-type': 'text/html' }).end(Buffer.from([0, 1, 2, 3, 255, 254, 0, 9])),
  '/loop': redirect('/loop'),
  '/to-private': redirect('http://10.1.2.3/secret'),
  '/to-loopback': redirect('http://127.0.0.1:8099/secret'),
  '/to-file': redirect('file:///etc/passwd'),
  '/empty': html('<script>document.body.textContent = "made by a script"</script>'),
  '/moved': redirect('http://review.saltmere.test/marsh-that-walks-inland?utm_source=trouble'),
  '/vanishing': (response) => { response.writeHead(200, { 'content-type': 'text/html', 'content-length': '5000' }); response.write('<p>half'); setTimeout(() => response.destroy(), 20); },
};
