import { useEffect, useRef, useState, type RefObject } from 'react';
import { useEditor, type Editor } from '@tiptap/react';
import { NodeSelection } from '@tiptap/pm/state';
import { LONGEST_STUDY_NOTE, type StudyNote } from '@avrelle/core/wire';
import { useNavigate } from 'react-router';
import { useTags } from '../data/queries';
import { completion } from '../note/completion';
import { WORDS_AND_LISTS } from '../note/extensions';
import { withoutTables } from '../note/pasted';
import { useCompleting } from '../note/Suggestions';
import { usePutPictures } from '../note/use-put-pictures';
import { useMessages } from '../ui/Messages';
import { useLatest } from '../ui/use-latest';
import { excerptNode, knowExcerpts, placeOfExcerpt } from './excerpt-node';
import type { NoteSaver } from './note-saver';
import { fromStudyMarkdown, toStudyMarkdown } from './study-document';

/** Marks what was brought in from elsewhere: it is not one's own to undo, nor to save. */
const TAKEN = 'taken';

const ATTRIBUTES = {
  dir: 'auto',
  'aria-label': 'The note',
  'aria-multiline': 'true',
  role: 'textbox',
  class: 'prose-note prose-study outline-none',
};

/** The editor of a study note; what is typed in it goes to the saver, and what comes meanwhile is brought in. */
export function useStudyEditor(note: StudyNote, saver: NoteSaver, wrote: () => void) {
  const navigate = useNavigate();
  const messages = useMessages();
  const [busy, setBusy] = useState('');
  const { completing, chosen, follow, onKey } = useCompleting();
  const putPictures = usePutPictures(undefined, setBusy);
  const tags = useTags().data;
  const latest = useLatest({ tags, wrote });
  const dirty = useRef(false);
  const editor: Editor = useEditor({
    extensions: [
      ...WORDS_AND_LISTS,
      excerptNode({
        excerpts: note.excerpts,
        onOpen: (id) => void navigate(`/to/annotation/${id}`),
        onAgain: () => messages.tell('It stands in this note already: here.'),
      }),
      completion({ tags: () => latest.current.tags ?? [], people: () => [], onChange: follow, onKey }),
    ],
    content: fromStudyMarkdown(saver.text),
    editorProps: {
      attributes: ATTRIBUTES,
      handlePaste: (_, event) => {
        const refused = (event.clipboardData?.getData('text/plain').length ?? 0) > LONGEST_STUDY_NOTE;
        if (refused) messages.warn('What you pasted is longer than a note may be. Paste a part of it.');
        return refused || putPictures(editor, [...(event.clipboardData?.files ?? [])]);
      },
      handleDrop: (_, event) => putPictures(editor, [...(event.dataTransfer?.files ?? [])]),
      transformPastedHTML: withoutTables,
    },
    onUpdate: ({ transaction }) => {
      if (transaction.getMeta(TAKEN)) return;
      dirty.current = true;
      latest.current.wrote();
    },
  });
  useSavedBy(saver, editor, dirty);
  const { excerpts } = note;
  useEffect(() => {
    if (!editor.isDestroyed) knowExcerpts(editor, excerpts);
  }, [editor, excerpts]);
  return { editor, busy, completing, chosen, putPictures };
}

/** The saver reads what is written, and shows what comes of it meanwhile. */
function useSavedBy(saver: NoteSaver, editor: Editor, dirty: RefObject<boolean>): void {
  const last = useRef('');
  useEffect(() => {
    // One writes on at the end; what is chosen at first would be the first excerpt.
    editor.commands.setTextSelection(editor.state.doc.content.size);
    last.current = toStudyMarkdown(editor.state.doc);
    saver.editing = {
      read: () => {
        if (!dirty.current || editor.isDestroyed) return undefined;
        dirty.current = false;
        const text = toStudyMarkdown(editor.state.doc);
        // The editor puts a line at the end to write in, which is no change.
        if (text === last.current) return undefined;
        last.current = text;
        return text;
      },
      show: (text) => {
        bringTo(editor, text);
        last.current = toStudyMarkdown(editor.state.doc);
      },
    };
    return () => {
      saver.read();
      saver.editing = undefined;
    };
  }, [saver, editor, dirty]);
}

/** Brings what is shown to a text, changing only what differs: the cursor stays with its words. */
function bringTo(editor: Editor, text: string): void {
  if (editor.isDestroyed) return;
  const next = editor.schema.nodeFromJSON(fromStudyMarkdown(text));
  const { doc, tr } = editor.state;
  const start = doc.content.findDiffStart(next.content);
  const end = doc.content.findDiffEnd(next.content);
  if (start === null || end === null) return;
  // Where what is equal at both ends meets, one of them gives way.
  const overlap = Math.max(0, start - Math.min(end.a, end.b));
  editor.view.dispatch(
    tr
      .replace(start, end.a + overlap, next.slice(start, end.b + overlap))
      .setMeta(TAKEN, true)
      .setMeta('addToHistory', false),
  );
}

/** Puts an excerpt behind the block one writes in, and goes on there; one that stands in the note already is shown. */
export function putHere(editor: Editor, annotationId: string, markdown: string): void {
  const { doc, selection } = editor.state;
  const there = placeOfExcerpt(doc, annotationId);
  if (there !== undefined) {
    const { tr } = editor.state;
    editor.view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, there)).scrollIntoView());
    return editor.view.focus();
  }
  const block = selection.$to.depth > 0 ? selection.$to.node(1) : undefined;
  const isEmpty = block?.type.name === 'paragraph' && block.childCount === 0;
  const [from, to] = isEmpty
    ? [selection.$to.before(1), selection.$to.after(1)]
    : [selection.$to.depth > 0 ? selection.$to.after(1) : selection.to, undefined];
  const at = to === undefined ? from : { from, to };
  const isLast = (to ?? from) >= doc.content.size;
  editor
    .chain()
    .insertContentAt(at, [
      { type: 'excerpt', attrs: { annotationId, markdown } },
      ...(isLast ? [{ type: 'paragraph' }] : []),
    ])
    .setTextSelection(from + 2)
    .focus()
    .scrollIntoView()
    .run();
}
