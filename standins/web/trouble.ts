import type { IncomingMessage, ServerResponse } from 'node:http';

type Trouble = (response: ServerResponse, request: IncomingMessage) => void;

const page = (body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Trouble</title></head><body>${body}</body></html>`;
const redirect =
  (to: string): Trouble =>
  (response) =>
    response.writeHead(302, { location: to }).end();
const html =
  (body: string): Trouble =>
  (response) =>
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(body));

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

/** Fails twice, then answers; every address after `?` by itself. */
const tries = new Map<string, number>();
const flaky: Trouble = (response, request) => {
  const times = (tries.get(request.url ?? '') ?? 0) + 1;
  tries.set(request.url ?? '', times);
  if (times <= 2)
    return void response.writeHead(503, { 'content-type': 'text/html' }).end(page('<p>Not just now.</p>'));
  html(
    '<main><h1>Third time lucky</h1><p>The ferry did come in the end, and nobody on the quay said a word about it.</p></main>',
  )(response, request);
};

const slow: Trouble = (response, request) =>
  void setTimeout(
    () =>
      html('<main><h1>In its own time</h1><p>Some pages take a while, as do some tides.</p></main>')(response, request),
    700,
  );

/** What a page would try that means harm. */
const HOSTILE = `<main><h1 onclick="alert(1)">Free mud</h1><p>Text of the page, long enough to be read by somebody who came for the mud.</p>
<script>parent.document.title = 'taken'</script><img src=x onerror="parent.document.title='taken'"><svg onload="parent.document.title='taken'"><a href="javascript:alert(1)"><text>x</text></a></svg>
<a href="javascript:parent.document.title='taken'">more</a><meta http-equiv="refresh" content="0;url=http://tracker.invalid/"><form action="http://tracker.invalid/"><button>Go</button></form>
<iframe srcdoc="<script>top.document.title='taken'</script>"></iframe><link rel="stylesheet" href="http://tracker.invalid/x.css"><style>@import "http://tracker.invalid/y.css"; body{background:url(http://tracker.invalid/z.png)}</style></main>`;

/** Every way in which the simulated web misbehaves, by path. */
export const TROUBLES: Readonly<Record<string, Trouble>> = {
  '/flaky': flaky,
  '/slow': slow,
  '/hostile': html(HOSTILE),
  '/wrong-type': (response) =>
    response
      .writeHead(200, { 'content-type': 'application/pdf' })
      .end(page('<h1>A page</h1><p>It says it is a PDF, and is a page all the same.</p>')),
  '/wrong-length': (response) => {
    response.writeHead(200, { 'content-type': 'text/html', 'content-length': '90000' });
    response.write(page('<p>Shorter than promised.</p>'), () => response.destroy());
  },
  '/feed-that-is-html': html('<h1>News</h1><p>This was said to be a feed.</p>'),
  '/broken-feed': (response) =>
    response
      .writeHead(200, { 'content-type': 'application/rss+xml' })
      .end('<rss version="2.0"><channel><title>Broken</title><item>'),
  '/broken': (response) =>
    response.writeHead(500, { 'content-type': 'text/html' }).end(page('<p>Something fell over.</p>')),
  '/locked': (response) => response.writeHead(403).end('no'),
  '/huge': pour(60),
  '/endless': drip,
  '/binary': (response) =>
    response
      .writeHead(200, { 'content-type': 'application/octet-stream' })
      .end(Buffer.from([0, 1, 2, 3, 255, 254, 0, 9])),
  '/binary-as-html': (response) =>
    response.writeHead(200, { 'content-type': 'text/html' }).end(Buffer.from([0, 1, 2, 3, 255, 254, 0, 9])),
  '/loop': redirect('/loop'),
  '/to-private': redirect('http://10.1.2.3/secret'),
  '/to-loopback': redirect('http://127.0.0.1:8099/secret'),
  '/to-file': redirect('file:///etc/passwd'),
  '/empty': html('<script>document.body.textContent = "made by a script"</script>'),
  '/moved': redirect('http://review.saltmere.test/marsh-that-walks-inland?utm_source=trouble'),
  '/vanishing': (response) => {
    response.writeHead(200, { 'content-type': 'text/html', 'content-length': '5000' });
    response.write('<p>half');
    setTimeout(() => response.destroy(), 20);
  },
};
