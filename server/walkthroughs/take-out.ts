import { defaultSchema, sanitize } from 'hast-util-sanitize';
import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { toHast } from 'mdast-util-to-hast';
import { walkthroughMarkdown, type TakenStep } from '@avrelle/core/export';
import type { ClassId, Me, WalkthroughId } from '@avrelle/core/wire';
import { annotationsOf } from '../annotations/queries';
import { classLabel } from '../classes/queries';
import type { Context } from '../context';
import { takenMarks } from '../export/routes';
import { escapeHtml } from '../ingest/documents';
import { walkthroughOf } from './walkthroughs';

interface Asked {
  readonly classId: ClassId;
  readonly id: WalkthroughId;
  /** What addresses in it begin with. */
  readonly origin: string;
}

/** A walkthrough in Markdown, with its name. */
export function walkthroughText(
  context: Context,
  me: Me,
  { classId, id, origin }: Asked,
): { readonly name: string; readonly text: string } {
  const { db } = context;
  const { name, steps } = walkthroughOf(context, me, classId, id);
  const sources = new Set(steps.flatMap(({ note }) => note?.source.id ?? []));
  const written = [...sources].flatMap((source) => annotationsOf(db, me.id, source)).filter((a) => !a.deleted);
  const taken = steps.map(({ annotationId, words, note }): TakenStep => {
    const thread = written.filter(({ id: one, rootId }) => one === annotationId || rootId === annotationId);
    return { title: note?.source.title ?? '', mark: takenMarks(thread, origin)[0], words };
  });
  return { name, text: walkthroughMarkdown({ name, className: classLabel(db, classId)?.name ?? '', steps: taken }) };
}

/** As it is printed: each step stays together where it fits on a page. */
const STYLE = `
body{font:16px/1.5 Literata,Georgia,serif;max-width:68ch;margin:2.5rem auto;padding:0 1.2rem}
body{color:#1c2a2b;background:#fcfaf5}
h1{font-size:1.7rem;margin:0}h1+p{color:#485452;margin:.2rem 0 2rem}
h2{font-size:1.1rem;border-top:1px solid #b9b19b;padding-top:1rem;margin:1.6rem 0 .6rem;break-after:avoid}
h3{font:600 .85rem/1.4 system-ui,sans-serif;color:#0e5a60;margin:1rem 0 .2rem;break-after:avoid}
blockquote{margin:0 0 .8rem;padding-left:1rem;border-left:2px solid #b9b19b;font-style:italic}
p,ul,ol{margin:.3rem 0 .6rem}a{color:inherit}
@media print{body{background:none;margin:0;max-width:none;font-size:11pt}a{text-decoration:none}}`;

/** The same as one HTML file without scripts, to be read and printed anywhere. */
export function walkthroughPage(name: string, markdown: string): string {
  const body = toHtml(sanitize(toHast(fromMarkdown(markdown)), defaultSchema));
  return [
    '<!doctype html>\n<html lang="en">\n<head><meta charset="utf-8">',
    '<meta name="viewport" content="width=device-width">',
    `<title>${escapeHtml(name)}</title>\n<style>${STYLE}\n</style></head>`,
    `<body>\n${body}\n</body>\n</html>\n`,
  ].join('\n');
}
