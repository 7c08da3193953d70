import { expect, test } from '@jest/globals';
import { Schema } from '@tiptap/pm/model';
import fc from 'fast-check';
import { fromMarkdown, toMarkdown } from '../note/note-document';
import { fromStudyMarkdown, toStudyMarkdown } from './study-document';

const attrs = (...names: string[]) => Object.fromEntries(names.map((name) => [name, { default: null }]));
/** The blocks of the editor, by their names; how they look is nothing here. */
const schema = new Schema({
  nodes: {
    doc: { content: 'block+' },
    paragraph: { group: 'block', content: 'inline*' },
    heading: { group: 'block', content: 'inline*', attrs: attrs('level') },
    blockquote: { group: 'block', content: 'block+' },
    bulletList: { group: 'block', content: 'listItem+' },
    orderedList: { group: 'block', content: 'listItem+', attrs: attrs('start') },
    listItem: { content: 'block+' },
    codeBlock: { group: 'block', content: 'text*', attrs: attrs('language') },
    formulaBlock: { group: 'block', attrs: attrs('tex') },
    horizontalRule: { group: 'block' },
    excerpt: { group: 'block', attrs: attrs('annotationId', 'markdown') },
    hardBreak: { group: 'inline', inline: true },
    text: { group: 'inline' },
  },
  marks: { bold: {} },
});
const excerpt = '> pegs\n>\n> § [Farrant 2026](avrelle:annotation/0193a1b2-0000-7000-8000-000000000001)';
const notes = fc
  .array(
    fc.constantFrom(
      ...[
        'words',
        'more **words**',
        '',
        '',
        '- item',
        '  on',
        '1. one',
        '> said',
        '```',
        '$$',
        '# Tide',
        '---',
        excerpt,
      ],
    ),
    { maxLength: 14 },
  )
  .map((lines) => lines.join('\n'));

test('read and written in stretches, a note is what it is at once, also the second time', () => {
  fc.assert(
    fc.property(notes, (note) => {
      const atOnce = fromMarkdown(note, { excerpts: true });
      expect(fromStudyMarkdown(note)).toEqual(atOnce);
      expect(fromStudyMarkdown(note)).toEqual(atOnce);
      const doc = schema.nodeFromJSON(atOnce);
      expect([toStudyMarkdown(doc), toStudyMarkdown(doc)]).toEqual([toMarkdown(atOnce), toMarkdown(atOnce)]);
    }),
    { numRuns: 500 },
  );
});
