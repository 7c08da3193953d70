import { InputRule, Node } from '@tiptap/core';
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from '@tiptap/react';
import { useEffect, useRef } from 'react';
import { pictureAddress } from './note-links';
import { Formula as Shown } from './Formula';

/** A formula in LaTeX, in a line or by itself: shown as set, written while it is chosen. */
const formula = (name: 'formula' | 'formulaBlock', inline: boolean) =>
  Node.create({
    name,
    group: inline ? 'inline' : 'block',
    inline,
    atom: true,
    selectable: true,
    addAttributes: () => ({ tex: { default: '' } }),
    parseHTML: () => [{ tag: `span[data-${name}]`, getAttrs: (element) => ({ tex: element.textContent }) }],
    renderHTML: ({ node }) => ['span', { [`data-${name}`]: '' }, String(node.attrs.tex)],
    addNodeView: () => ReactNodeViewRenderer(FormulaView),
    addInputRules() {
      const find = inline ? /(^|\s)\$([^$\s](?:[^$]*[^$\s])?)\$$/ : /^\$\$\s$/;
      return [
        new InputRule({
          find,
          handler: ({ state, range, match }) =>
            void state.tr.replaceWith(
              range.from + (match[1]?.length ?? 0),
              range.to,
              this.type.create({ tex: match[2] ?? '' }),
            ),
        }),
      ];
    },
  });
export const Formula = formula('formula', true);
export const FormulaBlock = formula('formulaBlock', false);

function FormulaView({ node, selected, updateAttributes, editor, getPos }: NodeViewProps) {
  const tex = String(node.attrs.tex);
  const block = node.type.name === 'formulaBlock';
  const field = useRef<HTMLInputElement>(null);
  const writing = selected || tex === '';
  useEffect(() => {
    if (writing) field.current?.focus();
  }, [writing]);
  const leave = (): void => {
    const at = getPos();
    if (at !== undefined)
      editor
        .chain()
        .focus(at + node.nodeSize)
        .run();
  };
  return (
    <NodeViewWrapper as={block ? 'div' : 'span'} className={block ? 'my-1 block text-center' : ''}>
      {writing ? (
        <input
          ref={field}
          aria-label="Formula in LaTeX"
          value={tex}
          size={Math.max(8, tex.length + 1)}
          placeholder="\\frac{a}{b}"
          className="border border-tide bg-paper px-1 font-mono text-[13px] outline-none"
          onChange={(e) => updateAttributes({ tex: e.target.value })}
          onKeyDown={(e) => {
            if (e.key === 'Enter' || e.key === 'Escape') {
              e.preventDefault();
              e.stopPropagation();
              leave();
            }
          }}
        />
      ) : (
        <Shown tex={tex} block={block} />
      )}
    </NodeViewWrapper>
  );
}

/** A picture of a note; its address is that of the note's Markdown. */
export const Picture = Node.create({
  name: 'picture',
  group: 'inline',
  inline: true,
  atom: true,
  draggable: true,
  addAttributes: () => ({ src: { default: '' }, alt: { default: '' } }),
  parseHTML: () => [],
  renderHTML: ({ node }) => [
    'img',
    {
      src: pictureAddress(String(node.attrs.src)) ?? '',
      alt: String(node.attrs.alt),
      class: 'my-1 max-h-[220px] max-w-full',
    },
  ],
});
