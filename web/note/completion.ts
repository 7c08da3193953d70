import { Extension, type Editor, type Range } from '@tiptap/core';
import { PluginKey } from '@tiptap/pm/state';
import Suggestion from '@tiptap/suggestion';
import { linkAddress } from '@avrelle/core/note';

export interface Offer {
  readonly key: string;
  readonly words: string;
}

/** What is offered while a `#tag` or an `@person` is being typed, and where. */
export interface Completing {
  readonly offers: readonly Offer[];
  /** Where the word stands now; null where it stands nowhere. */
  at(): DOMRect | null;
  choose(offer: Offer): void;
}

interface Options {
  tags(): readonly string[];
  people(): readonly { readonly id: string; readonly name: string }[];
  onChange(completing: Completing | undefined): void;
  /** Whether the list took the key. */
  onKey(event: KeyboardEvent): boolean;
}

const MOST = 6;
const begins = (words: string, query: string): boolean =>
  words
    .toLowerCase()
    .split(/[\s/]/)
    .some((part) => part.startsWith(query.toLowerCase())) || words.toLowerCase().startsWith(query.toLowerCase());

/** `#` offers tags in use, `@` the people who read the source. */
export const completion = (options: Options) =>
  Extension.create({
    name: 'completion',
    addProseMirrorPlugins() {
      const common = {
        editor: this.editor,
        render: () => ({
          onStart: tell,
          onUpdate: tell,
          onKeyDown: ({ event }: { event: KeyboardEvent }) => options.onKey(event),
          onExit: () => options.onChange(undefined),
        }),
      };
      const tell = ({
        items,
        clientRect,
        command,
      }: {
        items: Offer[];
        clientRect?: (() => DOMRect | null) | null;
        command: (offer: Offer) => void;
      }): void => options.onChange({ offers: items, at: () => clientRect?.() ?? null, choose: command });
      return [
        Suggestion<Offer, Offer>({
          ...common,
          char: '#',
          pluginKey: new PluginKey('tags'),
          items: ({ query }) =>
            options
              .tags()
              .filter((t) => query !== '' && begins(t, query) && t !== query.toLowerCase())
              .slice(0, MOST)
              .map((t) => ({ key: t, words: `#${t}` })),
          command: ({ editor, range, props }) => insert(editor, range, { type: 'text', text: `${props.words} ` }),
        }),
        Suggestion<Offer, Offer>({
          ...common,
          char: '@',
          pluginKey: new PluginKey('people'),
          items: ({ query }) =>
            options
              .people()
              .filter((p) => begins(p.name, query))
              .slice(0, MOST)
              .map((p) => ({ key: p.id, words: p.name })),
          command: ({ editor, range, props }) =>
            insert(
              editor,
              range,
              {
                type: 'text',
                text: `@${props.words}`,
                marks: [{ type: 'link', attrs: { href: linkAddress({ type: 'person', id: props.key }) } }],
              },
              { type: 'text', text: ' ' },
            ),
        }),
      ];
    },
  });

function insert(editor: Editor, range: Range, ...content: object[]): void {
  editor.chain().focus().insertContentAt(range, content).unsetMark('link').run();
}
