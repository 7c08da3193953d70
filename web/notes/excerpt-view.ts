import type { Editor } from '@tiptap/core';
import { DOMSerializer, type Node } from '@tiptap/pm/model';
import type { Decoration, NodeView } from '@tiptap/pm/view';
import katex from 'katex';
import { readExcerpt } from '@avrelle/core/study';
import type { StudyExcerpt } from '@avrelle/core/wire';
import { fromMarkdown } from '../note/note-document';

/** What is said of an excerpt that does not simply follow. */
const STATE_WORDS: Readonly<Record<StudyExcerpt['state'], string>> = {
  follows: '',
  changed: 'The highlight was changed since; you shortened this.',
  deleted: 'The highlight is gone; its words stay here.',
};

/** The look of an excerpt whose kind is not known. */
const UNKNOWN = { line: 'hairline', pigment: 'plain' } as const;

/** What is known of an excerpt, as its decoration brings it. */
export interface ExcerptSpec {
  readonly excerpt?: StudyExcerpt | undefined;
}

/**
 * An excerpt as it is shown in a note: plain elements, since a note may have hundreds. Its words cannot be typed into;
 * it is chosen, moved and taken out as a whole.
 */
export class ExcerptView implements NodeView {
  readonly dom = document.createElement('div');
  private shown = '';

  constructor(
    private node: Node,
    decorations: readonly Decoration[],
    private readonly editor: Editor,
    private readonly onOpen: (annotationId: string) => void,
  ) {
    this.dom.setAttribute('role', 'group');
    this.dom.contentEditable = 'false';
    this.render(specOf(decorations));
  }

  update(node: Node, decorations: readonly Decoration[]): boolean {
    if (node.type !== this.node.type) return false;
    this.node = node;
    this.render(specOf(decorations));
    return true;
  }

  selectNode(): void {
    this.dom.classList.add('chosen');
  }
  deselectNode(): void {
    this.dom.classList.remove('chosen');
  }
  stopEvent(event: Event): boolean {
    return event.target instanceof Element && event.target.closest('a') !== null && !event.type.startsWith('drag');
  }
  ignoreMutation(): boolean {
    return true;
  }

  private render({ excerpt }: ExcerptSpec): void {
    const markdown = String(this.node.attrs.markdown);
    const kind = excerpt?.kind ?? null;
    const shown = `${markdown}\0${JSON.stringify(kind)}\0${excerpt?.state}`;
    if (shown === this.shown) return;
    this.shown = shown;
    const read = readExcerpt(markdown);
    if (!read) return this.dom.replaceChildren(markdown);
    const { line, pigment } = kind ?? UNKNOWN;
    this.dom.className = `excerpt excerpt-${line}`;
    this.dom.style.setProperty('--line', `var(--${pigment}-line)`);
    this.dom.setAttribute('aria-label', ['Excerpt', kind?.name, read.reference].filter(Boolean).join(', '));
    const parts = [this.words(read.passage, 'passage'), this.words(read.note, 'beside'), this.foot(read, excerpt)];
    const sign = element('span', 'sign', kind?.sign ?? '');
    sign.setAttribute('aria-hidden', 'true');
    this.dom.replaceChildren(sign, ...parts.filter((part) => part !== undefined));
  }

  private words(markdown: string, name: string): HTMLElement | undefined {
    if (markdown === '') return undefined;
    const { schema } = this.editor;
    const made = element('div', name);
    made.dir = 'auto';
    const content = schema.nodeFromJSON(fromMarkdown(markdown)).content;
    made.append(DOMSerializer.fromSchema(schema).serializeFragment(content));
    for (const formula of made.querySelectorAll<HTMLElement>('[data-formula], [data-formulaBlock]'))
      katex.render(formula.textContent ?? '', formula, { throwOnError: false, strict: 'ignore' });
    return made;
  }

  private foot(
    { annotationId, after, reference }: NonNullable<ReturnType<typeof readExcerpt>>,
    excerpt: StudyExcerpt | undefined,
  ): HTMLElement {
    const foot = element('p', 'foot');
    const way = element('a', 'reach', reference) as HTMLAnchorElement;
    way.href = `/to/annotation/${annotationId}`;
    way.onclick = (event) => {
      if (event.ctrlKey || event.metaKey || event.shiftKey) return;
      event.preventDefault();
      this.onOpen(annotationId);
    };
    const gone = excerpt?.state === 'deleted';
    foot.append(gone ? reference : way, after && ` ${after}`);
    const words = excerpt ? STATE_WORDS[excerpt.state] : '';
    if (words) foot.append(element('span', 'state', words));
    return foot;
  }
}

const specOf = (decorations: readonly Decoration[]): ExcerptSpec =>
  (decorations.find((one) => 'excerpt' in one.spec)?.spec as ExcerptSpec | undefined) ?? {};

function element(name: string, className: string, words = ''): HTMLElement {
  const made = document.createElement(name);
  if (className) made.className = className;
  made.textContent = words;
  return made;
}
