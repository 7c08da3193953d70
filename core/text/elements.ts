/**
 * How elements shape the stream. It goes by element name only, never by computed style: styles differ between
 * the server's parser and a browser, names do not. Names are compared in lower case.
 */

/** Content that is never text to a reader (HTML Standard: metadata, scripting, embedded and form-control content). */
export const SILENT = new Set([
  'head',
  'title',
  'script',
  'style',
  'template',
  'noscript',
  'iframe',
  'object',
  'embed',
  'canvas',
  'svg',
  'audio',
  'video',
  'select',
  'datalist',
  'textarea',
  'input',
  'option',
  'progress',
  'meter',
  'map',
  'link',
  'meta',
  'base',
  'rp',
]);

/** Of a drawing in SVG only what is written in it is text; names of its parts and what is defined for use are not (SVG 2, 5). */
export const SILENT_IN_SVG = new Set([
  'title',
  'desc',
  'metadata',
  'style',
  'script',
  'defs',
  'symbol',
  'clippath',
  'mask',
  'pattern',
  'marker',
  'filter',
  'foreignobject',
]);

/** Elements that begin and end a line of their own (HTML Standard, rendering section, flow content with `display: block`). */
export const BLOCKS = new Set([
  'address',
  'article',
  'aside',
  'blockquote',
  'body',
  'caption',
  'center',
  'dd',
  'details',
  'dialog',
  'dir',
  'div',
  'dl',
  'dt',
  'fieldset',
  'figcaption',
  'figure',
  'footer',
  'form',
  'frameset',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'header',
  'hgroup',
  'hr',
  'html',
  'legend',
  'li',
  'listing',
  'main',
  'menu',
  'nav',
  'ol',
  'optgroup',
  'p',
  'plaintext',
  'pre',
  'search',
  'section',
  'summary',
  'table',
  'tbody',
  'tfoot',
  'thead',
  'tr',
  'td',
  'th',
  'ul',
  'xmp',
]);

/** Elements in which white space stands as it is written. */
export const PRESERVING = new Set(['pre', 'listing', 'plaintext', 'xmp']);

export type BlockRole = 'heading' | 'paragraph' | 'item' | 'cell' | 'caption' | 'code' | 'quotation' | 'cue';

const ROLES: Readonly<Record<string, BlockRole>> = {
  h1: 'heading',
  h2: 'heading',
  h3: 'heading',
  h4: 'heading',
  h5: 'heading',
  h6: 'heading',
  li: 'item',
  dt: 'item',
  dd: 'item',
  td: 'cell',
  th: 'cell',
  figcaption: 'caption',
  caption: 'caption',
  pre: 'code',
  blockquote: 'quotation',
};

export const roleOf = (name: string): BlockRole | undefined => ROLES[name];
export const headingLevel = (name: string): number | undefined => (/^h[1-6]$/.test(name) ? Number(name[1]) : undefined);
