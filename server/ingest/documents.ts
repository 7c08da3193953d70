import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmStrikethroughFromMarkdown } from 'mdast-util-gfm-strikethrough';
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table';
import { toHast } from 'mdast-util-to-hast';
import { gfmStrikethrough } from 'micromark-extension-gfm-strikethrough';
import { gfmTable } from 'micromark-extension-gfm-table';
import { parse as parseYaml } from 'yaml';

/** A page made of a plain-text file: paragraphs at blank lines, line ends kept; a short first line is its heading. */
export function textToHtml(text: string, name: string): string {
  const lines = text.replace(/\r\n?/g, '\n').replace(/^\s*\n/, '');
  const [, heading, rest = ''] = HEADING.exec(lines) ?? [];
  const paragraphs = (heading ? rest : lines)
    .split(/\n\s*\n/)
    .map((p) => p.replace(/^\n+|\s+$/g, ''))
    .filter(Boolean);
  const body = paragraphs.map((p) => `<p>${escapeHtml(p).replaceAll('\n', '<br>')}</p>`).join('\n');
  return page(heading ?? name, `<main>${heading ? `<h1>${escapeHtml(heading)}</h1>` : ''}${body}</main>`);
}

/** A first line of at most 100 characters that does not end as a sentence does, with more below it. */
const HEADING = /^([^\n]{1,99}[^\s.,;:])[ \t]*\n([\s\S]*\S[\s\S]*)$/;

/** A page made of a CommonMark file, with tables and words struck out; its YAML front matter becomes metadata, raw HTML passes on to the sanitiser. */
export function markdownToHtml(markdown: string, name: string): string {
  const { front, body } = splitFrontMatter(markdown);
  const tree = fromMarkdown(body, {
    extensions: [gfmTable(), gfmStrikethrough()],
    mdastExtensions: [gfmTableFromMarkdown(), gfmStrikethroughFromMarkdown()],
  });
  const html = toHtml(toHast(tree, { allowDangerousHtml: true }), { allowDangerousHtml: true });
  const heading = /^#\s+(.+)$/m.exec(body)?.[1];
  const value = (key: string): string => {
    const said = front[key];
    if (said instanceof Date) return said.toISOString();
    return typeof said === 'string' ? said : '';
  };
  const metas = [
    ['author', value('author')],
    ['og:site_name', value('site')],
    ['description', value('description')],
    ['dc.date', value('published') || value('date')],
  ];
  const tags = metas
    .filter(([, content]) => content)
    .map(([key, content]) => `<meta name="${key}" content="${escapeHtml(content!)}">`)
    .join('');
  return page(value('title') || heading || name, `<main>${html}</main>`, tags, value('language') || value('lang'));
}

function splitFrontMatter(text: string): { front: Record<string, unknown>; body: string } {
  const match = /^---\r?\n([\s\S]*?)\r?\n---\r?\n/.exec(text);
  if (!match) return { front: {}, body: text };
  try {
    const front: unknown = parseYaml(match[1]!);
    return {
      front: typeof front === 'object' && front !== null ? (front as Record<string, unknown>) : {},
      body: text.slice(match[0].length),
    };
  } catch {
    return { front: {}, body: text };
  }
}

export const page = (title: string, body: string, head = '', language = ''): string =>
  `<!doctype html><html${language ? ` lang="${escapeHtml(language)}"` : ''}><head><meta charset="utf-8"><title>${escapeHtml(title)}</title>${head}</head><body>${body}</body></html>`;

export const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);
