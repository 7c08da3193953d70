import { useCallback, useRef, useState } from 'react';
import { EditorContent, useEditorState, type Editor } from '@tiptap/react';
import { DropdownMenu } from 'radix-ui';
import { Link, useLocation, useNavigate } from 'react-router';
import type { StudyNote } from '@avrelle/core/wire';
import { hrefOf } from '../data/call';
import { savingWords } from '../data/use-saved';
import { useWrite } from '../data/use-write';
import { useWidth } from '../ui/use-width';
import { EditorTools } from '../note/EditorTools';
import { Suggestions } from '../note/Suggestions';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { PageHeading } from '../ui/PageHeading';
import { count, when } from '../ui/when';
import { ExcerptActions } from './ExcerptActions';
import { JoinsDialog } from './JoinsDialog';
import { NotYet } from './NotYet';
import { useNotePatch, useNoteSaver } from './use-note-saver';
import { useStudyEditor } from './use-study-editor';

const FOOT =
  'col-span-full flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-strong px-6 py-1.5 text-[14px] ' +
  'max-[900px]:px-3';
const TITLE =
  'block w-full resize-none bg-transparent [field-sizing:content] pointer-coarse:min-h-[44px] ' +
  'focus:outline-none focus-visible:shadow-[0_1px_0_var(--tide)]';

/** One study note: its words and excerpts, beside them what could be put into it and what it refers to. */
export function StudyNotePage({ note }: { note: StudyNote }) {
  const { saver, saving, wrote } = useNoteSaver(note);
  const version = useCallback(() => saver.version, [saver]);
  const patch = useNotePatch(note.id, version);
  const { editor, busy, completing, chosen, putPictures } = useStudyEditor(note, saver, wrote);
  const wide = useWidth(1_101);
  const state = busy || savingWords(saving, `Written ${when(note.changedAt)}`);
  return (
    <main className="grid min-h-0 grid-cols-[1fr_316px] grid-rows-[1fr_auto] max-[1100px]:grid-cols-1">
      <div className="relative min-h-0 overflow-y-auto bg-sheet">
        <div className="mx-auto max-w-[640px] px-[30px] pb-24 pt-5 max-[900px]:px-4">
          <Link to="/notes" className="act mb-2 hidden text-[14px] max-[900px]:inline-block">
            All notes
          </Link>
          <Title note={note} onRename={(title) => void patch({ title })} />
          <p className="mb-4 text-[13px] text-soft">{sizeOf(note)}</p>
          <EditorContent editor={editor} />
          <ExcerptActions editor={editor} onSettle={(id) => void patch({ settled: [id] })} />
          <Suggestions completing={completing} chosen={chosen} />
        </div>
        {!wide && <Beside note={note} editor={editor} className="border-t border-rule bg-paper" />}
      </div>
      {wide && <Beside note={note} editor={editor} className="min-h-0 overflow-y-auto border-l border-rule" />}
      <footer className={FOOT}>
        <EditorTools editor={editor} onPictures={(files) => putPictures(editor, files)} headings />
        <span role="status" className="ml-auto text-[13px] text-soft">
          {state}
        </span>
        <NoteMenu note={note} editor={editor} onPatch={patch} />
      </footer>
    </main>
  );
}

function sizeOf({ excerpts, references, words, createdAt, changedAt }: StudyNote): string {
  const from = references.length > 0 ? ` from ${count(references.length, 'source')}` : '';
  const [begun, last] = [createdAt, changedAt].map((at) => when(at));
  const written = begun === last ? `written ${last}` : `written ${begun} to ${last}`;
  return `${count(excerpts.length, 'excerpt')}${from} · ${count(words, 'word')} of my own · ${written}`;
}

/** What the note is called, to be written over. */
function Title({ note, onRename }: { note: StudyNote; onRename: (title: string) => void }) {
  const isNew = (useLocation().state as { isNew?: boolean } | null)?.isNew === true;
  const [typed, setTyped] = useState<string>();
  const field = useRef<HTMLTextAreaElement>(null);
  const leave = (): void => {
    if (typed !== undefined && typed.trim() !== '' && typed.trim() !== note.title) onRename(typed.trim());
    setTyped(undefined);
  };
  return (
    <PageHeading window={note.title} className="text-[24px] leading-[31px]">
      <textarea
        ref={field}
        aria-label="Name of the note"
        autoFocus={isNew}
        onFocus={(e) => isNew && typed === undefined && e.target.select()}
        dir="auto"
        rows={1}
        maxLength={300}
        value={typed ?? note.title}
        onChange={(e) => setTyped(e.target.value.replaceAll('\n', ' '))}
        onBlur={leave}
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault();
            e.currentTarget.blur();
          }
        }}
        className={TITLE}
      />
    </PageHeading>
  );
}

interface BesideProps {
  readonly note: StudyNote;
  readonly editor: Editor;
  readonly className: string;
}

function Beside({ note, editor, className }: BesideProps) {
  return (
    <aside aria-label="Beside the note" className={`px-[22px] py-[18px] max-[900px]:px-4 ${className}`}>
      <NotYet note={note} editor={editor} />
      {note.references.length > 0 && (
        <section className="mt-7">
          <h2 className="text-[17px]">References</h2>
          <p className="text-[13px] text-soft">author and year · {count(note.references.length, 'work')}</p>
          <ul className="mt-2">
            {note.references.map(({ sourceId, words }) => (
              <li key={sourceId} className="border-t border-rule py-2 font-read text-[14px] leading-[20px]">
                <Link to={`/source/${sourceId}`} className="hover:text-tide">
                  {words}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </aside>
  );
}

interface MenuProps {
  readonly note: StudyNote;
  readonly editor: Editor;
  onPatch: ReturnType<typeof useNotePatch>;
}

function NoteMenu({ note, editor, onPatch }: MenuProps) {
  const [choosing, setChoosing] = useState(false);
  const remove = useRemove(note, onPatch);
  const canUndo = useEditorState({ editor, selector: ({ editor: now }) => now.can().undo() });
  return (
    <>
      <button
        className="text-soft hover:text-ink"
        disabled={!canUndo}
        onClick={() => editor.chain().focus().undo().run()}
      >
        Undo
      </button>
      <a className="act reach" href={hrefOf('GET /api/notes/:id/note.md', { params: { id: note.id } })} download>
        Export
      </a>
      <Menu words="More" about="of this note">
        {note.sourceId !== null && (
          <>
            <DropdownMenu.Item className="item" asChild>
              <Link to={`/source/${note.sourceId}`}>Open the source</Link>
            </DropdownMenu.Item>
            <DropdownMenu.Item className="item" onSelect={() => setChoosing(true)}>
              What comes in by itself…
            </DropdownMenu.Item>
          </>
        )}
        <DropdownMenu.Item className="item text-brick" onSelect={() => void remove()}>
          Delete this note
        </DropdownMenu.Item>
      </Menu>
      {choosing && <JoinsDialog note={note} onPatch={onPatch} onClose={() => setChoosing(false)} />}
    </>
  );
}

/** Deletes the note, with a way to take that back. */
function useRemove(note: StudyNote, onPatch: MenuProps['onPatch']): () => Promise<void> {
  const navigate = useNavigate();
  const messages = useMessages();
  const restore = useWrite('POST /api/notes/:id/restore', 'study');
  return async () => {
    if (!(await onPatch({ deleted: true }))) return;
    void navigate('/notes');
    messages.tell(`“${note.title}” is deleted.`, {
      label: 'Undo',
      run: () => restore.run({ params: { id: note.id } }, () => void navigate(`/notes/${note.id}`)),
    });
  };
}
