import { decodeText, looksBinary } from '../decode-text';
import { simpleParser, type AddressObject, type EmailAddress, type ParsedMail } from 'mailparser';
import { AppError } from '../../errors';
import { escapeHtml, textToHtml } from '../documents';
import type { Got } from '../got';
import type { Reader } from '../made';
import {
  appendNodes,
  bodyOf,
  childElements,
  closest,
  newElement,
  replaceNode,
  select,
  selectOne,
  serializeElement,
  serializeTree,
  type PageTree,
} from '../page-tree';
import { parseHtml } from '../parse-html';
import { NOWHERE } from '../loader';

/**
 * A letter (RFC 5322, MIME). What it shows from other computers stays there unless asked for, as fetching it tells its
 * sender that it was opened.
 */
export const readLetter: Reader = async (got, { remote, web }) => {
  const mail = await parsed(got);
  const { head, body, strangers } = await contentOf(mail);
  const meta = metadataOf(mail);
  const title = escapeHtml(meta.title);
  const byline = [escapeHtml(meta.author), meta.publishedAt?.slice(0, 10)].filter(Boolean).join(' · ');
  const html = `<!doctype html><html><head><meta charset="utf-8"><title>${title}</title>${head}</head><body><main><h1>${title}</h1><p class="byline">${byline}</p>${body}${attachedTo(mail)}</main></body></html>`;
  return {
    form: 'raw',
    kind: 'letter',
    html,
    loader: remote ? web : undefined,
    file: { bytes: got.bytes, mediaType: 'message/rfc822' },
    meta,
    facts: remote || strangers === 0 ? {} : { remote: strangers },
    ...(mail.messageId ? { identity: `mid:${mail.messageId.replace(/^<|>$/g, '')}` } : {}),
  };
};

function metadataOf(mail: ParsedMail) {
  const { name, address = '' }: Partial<EmailAddress> = mail.from?.value[0] ?? {};
  return {
    title: mail.subject?.trim() || 'A letter without a subject',
    author: name || address || addressText(mail.from),
    site: listOf(mail) || address.split('@')[1] || '',
    publishedAt: mail.date?.toISOString() ?? null,
  };
}

/** The names of what came with it, as a line of its own. */
function attachedTo({ attachments }: ParsedMail): string {
  const names = attachments.filter((a) => !a.related && a.filename).map((a) => escapeHtml(a.filename!));
  return names.length ? `<p>Attached: ${names.join(', ')}</p>` : '';
}

/** Throws `bad_letter`. */
async function parsed({ bytes, name }: Got): Promise<ParsedMail> {
  const bad = (reason: string): AppError => new AppError('bad_letter', { name, reason }, { field: 'file' });
  const mail = await simpleParser(Buffer.from(bytes)).catch((cause: Error) => {
    throw bad(cause.message);
  });
  if (!mail.headerLines.some(({ key }) => /^(from|subject|date|to|message-id)$/.test(key)))
    throw bad('it has no sender, subject or date');
  return mail;
}

const addressText = (address: AddressObject | undefined): string => address?.text ?? '';

/** RFC 2919: the name of the list, before its identifier. */
function listOf(mail: ParsedMail): string {
  const line = mail.headerLines.find(({ key }) => key === 'list-id')?.line.replace(/^[^:]*:/, '') ?? '';
  return line.replace(/<[^>]*>/, '').replace(/^[\s"]+|[\s"]+$/g, '');
}

interface Content {
  readonly head: string;
  readonly body: string;
  /** How many pictures lie on other computers. */
  readonly strangers: number;
}

/** Letters within letters within letters. */
const DEEPEST = 5;

/** Its own words, and below them the letters it forwards or collects (RFC 2046, 5.1.5 and 5.2.1). */
async function contentOf(mail: ParsedMail, depth = 0): Promise<Content> {
  const own = ownContent(mail);
  const inner: Content[] = [];
  for (const part of depth < DEEPEST ? mail.attachments.filter((a) => a.contentType === 'message/rfc822') : []) {
    const letter = await simpleParser(part.content).catch(() => undefined);
    if (!letter) continue;
    const { head, body, strangers } = await contentOf(letter, depth + 1);
    const line = [letter.from?.text, letter.date?.toISOString().slice(0, 10)].filter(Boolean).join(' · ');
    inner.push({
      head,
      strangers,
      body: `<section><h2>${escapeHtml(letter.subject?.trim() || 'A letter without a subject')}</h2>${line ? `<p class="byline">${escapeHtml(line)}</p>` : ''}${body}</section>`,
    });
  }
  const all = [own, ...inner];
  return {
    head: all.map((c) => c.head).join(''),
    body: all.map((c) => c.body).join('\n'),
    strangers: all.reduce((sum, c) => sum + c.strangers, 0),
  };
}

function ownContent(mail: ParsedMail): Content {
  if (!mail.html)
    return {
      head: '',
      body: asHtml([mail.text ?? '', ...loose(mail)].filter((text) => text.trim()).join('\n\n')),
      strangers: 0,
    };
  const tree = parseHtml(mail.html, NOWHERE);
  unwrapLayout(tree);
  const strangers = select(tree, 'img[src], [background]').filter(({ attribs }) =>
    /^https?:/i.test(attribs.src ?? attribs.background ?? ''),
  ).length;
  return {
    head: select(tree, 'style').map(serializeElement).join(''),
    body: serializeTree(bodyOf(tree)),
    strangers,
  };
}

const asHtml = (text: string): string =>
  text
    ? serializeTree(selectOne(parseHtml(textToHtml(text, ''), NOWHERE), 'main')!).replace(/<(\/?)h1>/g, '<$1h2>')
    : '';

/** Words of an odd type that the letter shows within itself: without a name, they are no file. */
const loose = (mail: ParsedMail): string[] =>
  mail.attachments
    .filter(
      (a) =>
        !a.filename &&
        a.contentType !== 'message/rfc822' &&
        (/^text\//.test(a.contentType) || (!mail.text && !looksBinary(a.content))),
    )
    .map((a) => decodeText(a.content, 'letter', a.headers.get('content-type') ? `charset=${charsetIn(a)}` : ''));

function charsetIn(part: { readonly headers: ReadonlyMap<string, unknown> }): string {
  const type = part.headers.get('content-type') as { params?: { charset?: string } } | undefined;
  return type?.params?.charset ?? '';
}

/** Tables that only lay a letter out become plain boxes: those with tables inside, one column, or said to be so. */
function unwrapLayout(tree: PageTree): void {
  for (const table of select(tree, 'table').reverse()) {
    const rows = select(table, 'tr').filter((row) => closest(row, ({ name }) => name === 'table') === table);
    const laysOut =
      table.attribs.role === 'presentation' ||
      'data-laid-out' in table.attribs ||
      rows.every((row) => childElements(row).length <= 1) ||
      (selectOne(table, '[data-laid-out]') !== undefined && !selectOne(table, 'th'));
    if (!laysOut) continue;
    const box = newElement('div', { 'data-laid-out': '' });
    for (const cell of rows.flatMap(childElements)) {
      const inner = newElement('div');
      appendNodes(inner, cell.children);
      appendNodes(box, [inner]);
    }
    replaceNode(table, box);
  }
}
