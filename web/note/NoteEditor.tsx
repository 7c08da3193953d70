import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react';
import Code from '@tiptap/extension-code';
import StarterKit from '@tiptap/starter-kit';
import { Popover } from 'radix-ui';
import { linkAddress, tagsIn } from '@avrelle/core/note';
import { LONGEST_NOTE, type StoredPicture, type SourceId } from '@avrelle/core/wire';
import { wordsOf as wordsOfError } from '../data/api';
import { call } from '../data/call';
import { useReaders, useTags } from '../data/queries';
import { useLatest } from '../ui/use-latest';
import { completion, type Completing } from './completion';
import { LinkPanel } from './LinkPanel';
import { Formula, FormulaBlock, Picture } from './nodes';
import { isTypedAddress, withoutTables } from './pasted';
import { fromMarkdown, toMarkdown, wordsOf } from './note-document';

export interface Written {
  readonly markdown: string;
  /** Tags that stand in its words. */
  readonly tags: readonly string[];
}

interface Props {
  readonly label: string;
  readonly markdown: string;
  /** Whose readers can be named in it. */
  readonly sourceId?: SourceId | undefined;
  readonly placeholder?: string;
  onChange(written: Written): void;
  onSubmit(): void;
  /** A picture is on its way, or has come; `failed` where it did not. */
  onSending?(sending: boolean, failed: boolean): void;
}

/** Code may stand in bold words. */
const CodeInWords = Code.extend({ excludes: '' });

/** Markup weighs more than its words, up to so many times. */
const MOST_MARKUP = 20;

/** What is offered while a tag or a person is typed, and the keys that choose of it. */
function useCompleting() {
  const [completing, setCompleting] = useState<Completing>();
  const [chosen, setChosen] = useState(0);
  const latest = useLatest({ completing, chosen });
  const follow = (next: Completing | undefined): void => {
    setCompleting(next?.offers.length ? next : undefined);
    setChosen(0);
  };
  const onKey = (event: KeyboardEvent): boolean => {
    const { completing: now, chosen: at } = latest.current;
    const { key } = event;
    if (!now) return false;
    if (key === 'Escape') {
      // It closes the list, and not the note around it.
      event.stopPropagation();
      follow(undefined);
      return true;
    }
    if (key === 'ArrowDown' || key === 'ArrowUp')
      setChosen((at + (key === 'ArrowDown' ? 1 : -1) + now.offers.length) % now.offers.length);
    else if (key === 'Enter' || key === 'Tab') now.choose(now.offers[at]!);
    else return false;
    return true;
  };
  return { completing, chosen, follow, onKey };
}

type PutPictures = (editor: Editor, files: readonly File[]) => boolean;

/** Sends the pictures among files, each put where one writes once it has come; false where there are none. */
function usePictures(onSending: Props['onSending'], tell: (words: string) => void): PutPictures {
  /** How many are on their way. */
  const sending = useRef(0);
  const ended = (words: string): void => {
    tell(words);
    sending.current--;
    if (sending.current === 0 || words) onSending?.(sending.current > 0, words !== '');
  };
  return (editor, files) => {
    const pictures = files.filter((file) => file.type.startsWith('image/'));
    for (const file of pictures) {
      tell('Putting in the picture…');
      sending.current++;
      onSending?.(true, false);
      const put = ({ hash }: StoredPicture): void => {
        const attrs = { src: linkAddress({ type: 'picture', id: hash }), alt: file.name.replace(/\.[a-z]+$/i, '') };
        editor.chain().focus().insertContent({ type: 'picture', attrs }).run();
        ended('');
      };
      call('POST /api/pictures', { file }).then(put, (error: unknown) => ended(wordsOfError(error)));
    }
    return pictures.length > 0;
  };
}

const TOO_LONG =
  `What you pasted is longer than a note may be (${LONGEST_NOTE.toLocaleString('en')} characters). ` +
  'Paste a part of it, or keep it as a source in the Library.';

/** Refused before the editor has to take it in; the clipboard keeps it. */
function isTooLong(data: DataTransfer | null): boolean {
  const length = (type: string): number => data?.getData(type).length ?? 0;
  return Math.max(length('text/plain'), length('text/html') / MOST_MARKUP) > LONGEST_NOTE;
}

const WORDS_AND_LISTS = StarterKit.configure({
  underline: false,
  strike: false,
  code: false,
  link: {
    openOnClick: false,
    shouldAutoLink: isTypedAddress,
    protocols: ['avrelle'],
    isAllowedUri: (address, { defaultValidate }) => address.startsWith('avrelle:') || defaultValidate(address),
  },
});

type Completion = Pick<ReturnType<typeof useCompleting>, 'follow' | 'onKey'>;

/** The editor itself; it has the focus at once, at the end of its words. */
function useNoteEditor(
  props: Props,
  { follow, onKey }: Completion,
  putPictures: PutPictures,
  tell: (words: string) => void,
) {
  const { label, markdown, sourceId, onChange, onSubmit } = props;
  const tags = useTags().data;
  const people = useReaders(sourceId).data;
  const latest = useLatest({ tags, people, onChange, onSubmit });
  const paste = (event: ClipboardEvent): boolean => {
    const refused = isTooLong(event.clipboardData);
    tell(refused ? TOO_LONG : '');
    return refused || putPictures(editor, [...(event.clipboardData?.files ?? [])]);
  };
  const editor: Editor = useEditor({
    extensions: [
      WORDS_AND_LISTS,
      ...[CodeInWords, Formula, FormulaBlock, Picture],
      completion({
        tags: () => latest.current.tags ?? [],
        people: () => latest.current.people ?? [],
        onChange: follow,
        onKey,
      }),
    ],
    content: fromMarkdown(markdown),
    editorProps: {
      attributes: {
        dir: 'auto',
        'aria-label': label,
        'aria-multiline': 'true',
        role: 'textbox',
        class: 'prose-note min-h-[60px] max-h-[40vh] overflow-y-auto leading-5 outline-none',
      },
      handleKeyDown: (_, event) => {
        if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return false;
        latest.current.onSubmit();
        return true;
      },
      handlePaste: (_, event) => paste(event),
      transformPastedHTML: withoutTables,
      handleDrop: (_, event) => putPictures(editor, [...(event.dataTransfer?.files ?? [])]),
    },
    onUpdate: ({ editor: now }) => {
      const doc = now.getJSON();
      latest.current.onChange({ markdown: toMarkdown(doc), tags: tagsIn(wordsOf(doc)) });
    },
  });
  // At once, not in the next frame: the second letter comes faster.
  useLayoutEffect(() => {
    // One that was made long before it is shown is put away meanwhile; another comes in its place.
    if (editor.isDestroyed) return;
    editor.view.dom.focus({ preventScroll: true });
    editor.commands.setTextSelection(editor.state.doc.content.size);
  }, [editor]);
  return editor;
}

/** The rich-text editor of notes. Its words are Markdown outside. */
export default function NoteEditor(props: Props) {
  const [busy, setBusy] = useState('');
  const { completing, chosen, ...keys } = useCompleting();
  const putPictures = usePictures(props.onSending, setBusy);
  const editor = useNoteEditor(props, keys, putPictures, setBusy);
  const empty = useEditorState({ editor, selector: ({ editor: now }) => now.isEmpty });
  return (
    <div className="border-b border-(--strand) focus-within:border-tide">
      <Tools editor={editor} onPictures={(files) => putPictures(editor, files)} />
      <div className="relative py-1">
        {empty && (
          <span aria-hidden="true" className="pointer-events-none absolute left-0 top-1 text-faint">
            {props.placeholder}
          </span>
        )}
        <EditorContent editor={editor} />
      </div>
      {busy && (
        <p role="status" className="pb-1 text-[13px] text-soft">
          {busy}
        </p>
      )}
      <Suggestions completing={completing} chosen={chosen} />
    </div>
  );
}

/** Below the word that is being typed, above whatever else stands there. */
function Suggestions({ completing, chosen }: { completing: Completing | undefined; chosen: number }) {
  const anchor = useRef({ getBoundingClientRect: () => new DOMRect() });
  useLayoutEffect(() => {
    anchor.current.getBoundingClientRect = () => completing?.at() ?? new DOMRect();
  });
  if (!completing?.at()) return null;
  return (
    <Popover.Root open>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          updatePositionStrategy="always"
          className="over z-50 py-1 text-[14px]"
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
        >
          <ul role="listbox" aria-label="Suggestions">
            {completing.offers.map((offer, n) => (
              <li
                key={offer.key}
                role="option"
                aria-selected={n === chosen}
                className={`cursor-pointer px-3 py-1 ${n === chosen ? 'bg-wash' : ''}`}
                onMouseDown={(e) => {
                  e.preventDefault();
                  completing.choose(offer);
                }}
              >
                {offer.words}
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Tools({ editor, onPictures }: { editor: Editor; onPictures: (files: readonly File[]) => void }) {
  const file = useRef<HTMLInputElement>(null);
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      bullets: now.isActive('bulletList'),
      numbers: now.isActive('orderedList'),
      quote: now.isActive('blockquote'),
      code: now.isActive('code') || now.isActive('codeBlock'),
      link: now.isActive('link'),
    }),
  });
  const tool = (name: string, sign: ReactNode, active: boolean, run: () => void) => (
    <button
      key={name}
      type="button"
      aria-label={name}
      aria-pressed={active}
      title={name}
      onMouseDown={(e) => e.preventDefault()}
      onClick={run}
      className={`min-w-[25px] pointer-coarse:min-w-[44px] px-1 py-0.5 text-[14px] hover:bg-wash ${active ? 'bg-wash text-tide' : 'text-soft'}`}
    >
      {sign}
    </button>
  );
  const chain = () => editor.chain().focus();
  const code = (): void => {
    if (editor.state.selection.empty || editor.isActive('codeBlock')) chain().toggleCodeBlock().run();
    else chain().toggleCode().run();
  };
  return (
    <div role="toolbar" aria-label="Style of the note" className="flex items-center border-b border-rule pb-0.5">
      {tool('Bold', <b>B</b>, on.bold, () => chain().toggleBold().run())}
      {tool('Italics', <i className="font-read">I</i>, on.italic, () => chain().toggleItalic().run())}
      {tool('List', '•', on.bullets, () => chain().toggleBulletList().run())}
      {tool('Numbered list', <span className="before:content-['1.']" />, on.numbers, () =>
        chain().toggleOrderedList().run(),
      )}
      {tool('Quotation', '“', on.quote, () => chain().toggleBlockquote().run())}
      {tool('Code', <span className="font-mono text-[12px]">{'<>'}</span>, on.code, code)}
      {tool('Formula', <i className="font-read before:content-['x²']" />, false, () =>
        chain()
          .insertContent({ type: 'formula', attrs: { tex: '' } })
          .run(),
      )}
      <LinkPanel editor={editor} active={on.link} />
      {tool(
        'Picture',
        <svg aria-hidden="true" viewBox="0 0 16 16" width="15" height="15" className="inline">
          <path
            d="M1.5 2.5h13v11h-13zM2 11.5l4-4 3 3 2-2 3 3M11 6h.01"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.3"
            strokeLinecap="round"
          />
        </svg>,
        false,
        () => file.current?.click(),
      )}
      <input
        ref={file}
        type="file"
        accept="image/png,image/jpeg,image/gif,image/webp,image/avif"
        hidden
        aria-label="Picture for the note"
        onChange={(e) => {
          onPictures([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
    </div>
  );
}
