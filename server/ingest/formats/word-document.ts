import mammoth from 'mammoth';
import { AppError } from '../../errors';
import { page } from '../documents';
import { titleOf, type Reader } from '../made';
import { readDate } from '../metadata';
import { contentOf, select } from '../page-tree';
import { parseXml } from '../parse-xml';
import { unzip } from '../unzip';

/** As word processors and the programs that write for them call what is code (common practice). */
const CODE_STYLES = ['HTML Preformatted', 'Source Code', 'Preformatted Text', 'Code', 'Plain Text', 'macro'];
const CODE_WORDS = ['HTML Code', 'Verbatim Char', 'Source Text', 'Code Char', 'HTML Typewriter'];

const STYLES = [
  "p[style-name='Title'] => h1:fresh",
  "p[style-name='Quote'] => blockquote > p:fresh",
  ...CODE_STYLES.map((name) => `p[style-name='${name}'] => pre:separator('\\n')`),
  ...CODE_WORDS.map((name) => `r[style-name='${name}'] => code`),
];

/** Office Open XML (ECMA-376) word-processor documents: headings, lists, tables, pictures and notes as HTML. */
export const readWordDocument: Reader = async (got) => {
  const parts = await unzip(got.bytes, got.name);
  const bad = (reason: string): AppError => new AppError('bad_document', { name: got.name, reason }, { field: 'file' });
  if (!parts.has('word/document.xml')) throw bad('it holds no word/document.xml');
  const { value } = await mammoth
    .convertToHtml({ buffer: Buffer.from(got.bytes) }, { styleMap: STYLES })
    .catch((cause: Error) => {
      throw bad(cause.message);
    });
  const core = parts.get('docProps/core.xml');
  const properties = core && parseXml(core);
  const property = (name: string): string => contentOf(properties ? select(properties, name).slice(0, 1) : []).trim();
  const heading = /<h1[^>]*>(.*?)<\/h1>/s
    .exec(value)?.[1]
    ?.replace(/<[^>]+>/g, '')
    .trim();
  const title = property('title') || heading || titleOf(got.name);
  return {
    form: 'raw',
    kind: 'document',
    html: page(title, `<main>${value}</main>`),
    file: { bytes: got.bytes, mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document' },
    meta: {
      title,
      author: property('creator'),
      language: property('language'),
      description: property('description'),
      publishedAt: readDate(property('modified') || property('created')),
    },
  };
};
