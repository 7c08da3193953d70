import { escapeHtml } from '../../documents';
import { ASIDE_ATTRIBUTE } from '@avrelle/core/text';
import { joined, type Paragraph } from './paragraphs';
import type { PdfPage } from './pdf-page';

/**
 * `--u` is one point; the reading view sets it by the zoom. A word's box stands on its baseline, its width is set by
 * the reading view, which knows the face at hand; without it the text still stands where it belongs.
 */
export const PAGE_CSS = `
:root{--u:1.25px}
body{margin:0}
section[data-avrelle-page]{position:relative;width:calc(var(--w)*var(--u));height:calc(var(--h)*var(--u));margin:0 auto 12px;overflow:hidden;content-visibility:auto;contain-intrinsic-size:calc(var(--w)*var(--u)) calc(var(--h)*var(--u))}
section[data-avrelle-page] :is(p,h1,h2,h3){margin:0;font:inherit}
section[data-avrelle-page] span{position:absolute;left:calc(var(--x)*var(--u));top:calc((var(--y) - .86*var(--s))*var(--u));font:calc(var(--s)*var(--u))/1 serif;white-space:pre;transform-origin:0 0}
section[data-avrelle-page] p.no-text{position:absolute;left:0;bottom:0;font:12px/1.5 sans-serif;padding:4px 8px}`;

/** One page. Spaces between runs stand between the elements, so that they are in the text and not in the picture. */
export function pageHtml(page: PdfPage, number: number, isCompound: (word: string) => boolean): string {
  const body = page.paragraphs.length
    ? page.paragraphs.map((p) => paragraphHtml(p, isCompound)).join('\n')
    : `<p class="no-text">Page ${escapeHtml(page.label)}, a picture without text</p>`;
  return `<section id="page-${number}" data-avrelle-page="${number}" data-avrelle-label="${escapeHtml(page.label)}" style="--w:${short(page.width)};--h:${short(page.height)}">${body}</section>`;
}

function paragraphHtml(paragraph: Paragraph, isCompound: (word: string) => boolean): string {
  const name = paragraph.level ? `h${paragraph.level}` : 'p';
  const runs = joined(paragraph.lines, isCompound).map(({ run, text }) => {
    const [, before = '', words = ''] = /^(\s*)(.*)$/su.exec(text) ?? [];
    return `${before ? ' ' : ''}<span style="--x:${short(run.x)};--y:${short(run.baseline)};--s:${short(run.size)};--l:${short(run.width)}">${escapeHtml(words)}</span>`;
  });
  return `<${name}${paragraph.aside ? ` ${ASIDE_ATTRIBUTE}` : ''}>${runs.join('')}</${name}>`;
}

const short = (points: number): string => String(Math.round(points * 10) / 10);
