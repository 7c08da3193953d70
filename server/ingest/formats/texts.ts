import Papa from 'papaparse';
import { hashOf } from '../../db/blobs';
import { AppError } from '../../errors';
import { readText } from '../decode-text';
import { escapeHtml, markdownToHtml, page, textToHtml } from '../documents';
import type { Got } from '../got';
import { titleOf, type Made, type Reader } from '../made';

export const readMarkdown: Reader = (got) => {
  const { text, encoding } = readText(got);
  return {
    form: 'raw',
    kind: 'markdown',
    ...keptAs(got, 'text/markdown', encoding),
    html: markdownToHtml(text, titleOf(got.name)),
  };
};

export const readPlainText: Reader = (got) => {
  const { text, encoding } = readText(got);
  return {
    form: 'raw',
    kind: 'text',
    ...keptAs(got, 'text/plain', encoding),
    html: textToHtml(text, titleOf(got.name)),
  };
};

/** Its bytes stay beside it, so that it can be read again in another encoding. */
function keptAs(got: Got, mediaType: string, encoding: string): Pick<Made, 'identity' | 'file' | 'facts'> {
  return { identity: identityOf(got), file: { bytes: got.bytes, mediaType }, facts: { encoding } };
}

/** The same file under another name is the same; one at an address is known by that. */
const identityOf = ({ bytes }: Got): string => `sha256:${hashOf(bytes)}`;

const MOST_ROWS = 20_000;

/** RFC 4180, with whatever separator the file has; the first row is the head. */
export const readCsv: Reader = (got) => {
  const { text, encoding } = readText(got);
  const parsed = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const rows = parsed.data;
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken)
    throw new AppError(
      'bad_table',
      { name: got.name, row: (broken.row ?? 0) + 1, reason: broken.message },
      { field: 'file' },
    );
  if (rows.length > MOST_ROWS)
    throw new AppError('too_many_rows', { name: got.name, rows: rows.length, limit: MOST_ROWS }, { field: 'file' });
  const [head = [], ...body] = rows;
  const title = titleOf(got.name);
  const cells = (row: readonly string[], tag: 'th' | 'td'): string =>
    `<tr>${head.map((_, n) => `<${tag}>${escapeHtml(row[n] ?? '')}</${tag}>`).join('')}${row
      .slice(head.length)
      .map((cell) => `<${tag}>${escapeHtml(cell)}</${tag}>`)
      .join('')}</tr>`;
  const table = `<table><thead>${cells(head, 'th')}</thead><tbody>${body.map((row) => cells(row, 'td')).join('\n')}</tbody></table>`;
  return {
    form: 'raw',
    kind: 'table',
    ...keptAs(got, 'text/csv', encoding),
    html: page(title, `<main><h1>${escapeHtml(title)}</h1>${table}</main>`),
  };
};
