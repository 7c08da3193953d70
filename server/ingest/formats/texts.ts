import Papa from 'papaparse';
import { hashOf } from '../../db/blobs';
import { AppError } from '../../errors';
import { decodeText } from '../decode-text';
import { escapeHtml, markdownToHtml, page, textToHtml } from '../documents';
import { titleOf, type Got, type Reader } from '../made';

export const readMarkdown: Reader = (got) => ({ form: 'raw', kind: 'markdown', identity: identityOf(got), html: markdownToHtml(decodeText(got.bytes, got.name, got.contentType), titleOf(got.name)) });

export const readPlainText: Reader = (got) => ({ form: 'raw', kind: 'text', identity: identityOf(got), html: textToHtml(decodeText(got.bytes, got.name, got.contentType), titleOf(got.name)) });

/** The same file under another name is the same; one at an address is known by that. */
const identityOf = ({ bytes }: Got): string => `sha256:${hashOf(bytes)}`;

const MOST_ROWS = 20_000;

/** RFC 4180, with whatever separator the file has; the first row is the head. */
export const readCsv: Reader = (got) => {
  const parsed = Papa.parse<string[]>(decodeText(got.bytes, got.name, got.contentType), { skipEmptyLines: 'greedy' });
  const rows = parsed.data, broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken) throw new AppError('bad_table', { name: got.name, row: (broken.row ?? 0) + 1, reason: broken.message }, { field: 'file' });
  if (rows.length > MOST_ROWS) throw new AppError('too_many_rows', { name: got.name, rows: rows.length, limit: MOST_ROWS }, { field: 'file' });
  const [head = [], ...body] = rows, title = titleOf(got.name);
  const cells = (row: readonly string[], tag: 'th' | 'td'): string => `<tr>${head.map((_, n) => `<${tag}>${escapeHtml(row[n] ?? '')}</${tag}>`).join('')}${row.slice(head.length).map((cell) => `<${tag}>${escapeHtml(cell)}</${tag}>`).join('')}</tr>`;
  const table = `<table><thead>${cells(head, 'th')}</thead><tbody>${body.map((row) => cells(row, 'td')).join('\n')}</tbody></table>`;
  return { form: 'raw', kind: 'table', identity: identityOf(got), html: page(title, `<main><h1>${escapeHtml(title)}</h1>${table}</main>`) };
};
