import { useLayoutEffect, useState } from 'react';
import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react';
import { tagsIn } from '@avrelle/core/note';
import { LONGEST_NOTE, type SourceId } from '@avrelle/core/wire';
import { useReaders, useTags } from '../data/queries';
import { useLatest } from '../ui/use-latest';
import { completion } from './completion';
import { EditorTools } from './EditorTools';
import { WORDS_AND_LISTS } from './extensions';
import { fromMarkdown, toMarkdown, wordsOf } from './note-document';
import { withoutTables } from './pasted';
import { Suggestions, useCompleting, type Completion } from './Suggestions';
import { usePutPictures, type PutPictures } from './use-put-pictures';

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

/** Markup weighs more than its words, up to so many times. */
const MOST_MARKUP = 20;

const TOO_LONG =
  `What you pasted is longer than a note may be (${LONGEST_NOTE.toLocaleString('en')} characters). ` +
  'Paste a part of it, or keep it as a source in the Library.';

/** Refused before the editor has to take it in; the clipboard keeps it. */
function isTooLong(data: DataTransfer | null): boolean {
  const length = (type: string): number => data?.getData(type).length ?? 0;
  return Math.max(length('text/plain'), length('text/html') / MOST_MARKUP) > LONGEST_NOTE;
}

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
      ...WORDS_AND_LISTS,
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
  const putPictures = usePutPictures(props.onSending, setBusy);
  const editor = useNoteEditor(props, keys, putPictures, setBusy);
  const empty = useEditorState({ editor, selector: ({ editor: now }) => now.isEmpty });
  return (
    <div className="border-b border-(--strand) focus-within:border-tide">
      <EditorTools editor={editor} onPictures={(files) => putPictures(editor, files)} />
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
