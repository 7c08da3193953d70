import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { Liquid } from 'liquidjs';
import { simpleParser, type ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';

/** A mail server that takes everything in and delivers nothing: what arrived is shown on a page. */
export interface Inbox {
  readonly smtpPort: number;
  readonly webPort: number;
  /** The newest first. */
  readonly letters: readonly ParsedMail[];
  /** Refuses what comes, as a server that is full does, until it is told otherwise. */
  refuse(refused: boolean): void;
  close(): Promise<void>;
}

const MOST_KEPT = 200;

export async function openInbox({ smtp = 0, web = 0 }: { smtp?: number; web?: number } = {}): Promise<Inbox> {
  const letters: ParsedMail[] = [];
  let refused = false;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onData: (stream, _session, done) => {
      simpleParser(stream).then(
        (letter) => {
          if (refused) return done(Object.assign(new Error('The mailbox is full.'), { responseCode: 452 }));
          letters.unshift(letter);
          letters.splice(MOST_KEPT);
          done();
        },
        (error: Error) => done(error),
      );
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(smtp, '127.0.0.1', () => resolve());
  });
  const pages = http.createServer((request, response) => {
    const at = Number(/^\/(\d+)$/.exec(request.url ?? '')?.[1] ?? Number.NaN);
    const letter = letters.at(letters.length - at);
    response.setHeader('content-type', 'text/html; charset=utf-8');
    // What a letter holds is somebody else's.
    response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; img-src data:");
    response.end(at && letter ? one(letter) : list(letters));
  });
  await new Promise<void>((resolve, reject) => {
    pages.once('error', reject);
    pages.listen(web, '127.0.0.1', () => resolve());
  });
  return {
    smtpPort: (server.server.address() as AddressInfo).port,
    webPort: (pages.address() as AddressInfo).port,
    letters,
    refuse: (is) => {
      refused = is;
    },
    close: async () => {
      await new Promise<void>((resolve) => server.close(() => resolve()));
      pages.closeAllConnections();
      await new Promise<void>((resolve) => pages.close(() => resolve()));
    },
  };
}

const liquid = new Liquid({ outputEscape: 'escape' });
const PAGE = liquid.parse(`<!doctype html><html lang="en"><meta charset="utf-8"><title>{{ title }}</title>
<style>body{max-width:640px;margin:32px auto;padding:0 16px;font:16px/1.5 sans-serif}pre{white-space:pre-wrap}</style>
<body><h1>{{ title }}</h1>
{% if text %}<p><a href="/">All</a> · to {{ to }}</p><pre>{{ text }}</pre>
{% elsif letters.size == 0 %}<p>Nothing yet.</p>
{% else %}<ul>{% for one in letters %}
<li><a href="/{{ one.at }}">{{ one.title }}</a>, to {{ one.to }}</li>{% endfor %}</ul>{% endif %}
</body></html>`);

const told = (letter: ParsedMail) => ({
  title: letter.subject ?? '(no subject)',
  to: [letter.to ?? []]
    .flatMap((addresses) => addresses)
    .map(({ text }) => text)
    .join(', '),
});
const list = (letters: readonly ParsedMail[]): string =>
  liquid.renderSync(PAGE, {
    title: 'What arrived',
    letters: letters.map((letter, n) => ({ ...told(letter), at: letters.length - n })),
  }) as string;
const one = (letter: ParsedMail): string =>
  liquid.renderSync(PAGE, { ...told(letter), text: letter.text ?? '(no words)' }) as string;
