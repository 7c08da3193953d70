import { useEffect, useRef, useState, type RefObject } from 'react';
import { useEditorState, type Editor } from '@tiptap/react';
import { NodeSelection } from '@tiptap/pm/state';
import { readExcerpt } from '@avrelle/core/study';
import { fromMarkdown } from '../note/note-document';
import { Beneath } from '../ui/Beneath';
import { chosenExcerpt, moveExcerpt } from './excerpt-node';
import { MakeCard } from '../review/MakeCard';
import { ShortenDialog } from './ShortenDialog';

type Chosen = NonNullable<ReturnType<typeof chosenExcerpt>>;

interface Props {
  readonly editor: Editor;
  /** The person leaves what they made of an excerpt as it is. */
  onSettle(annotationId: string): void;
}

/** What can be done with the excerpt that is chosen, below it. */
export function ExcerptActions({ editor, onSettle }: Props) {
  const chosen = useEditorState({
    editor,
    selector: ({ editor: now }) => chosenExcerpt(now.state),
    equalityFn: (a, b) => a?.markdown === b?.markdown && a?.known === b?.known,
  });
  const at = useEditorState({ editor, selector: ({ editor: now }) => now.state.selection.from });
  const [shortening, setShortening] = useState<Chosen>();
  const actions = useEnter(editor, chosen !== undefined);
  const replace = (markdown: string): void =>
    void editor.chain().focus().updateAttributes('excerpt', { markdown }).run();
  return (
    <>
      {chosen && !shortening && (
        <Beneath
          key={at}
          at={() => boxOf(editor, at)}
          label="The excerpt"
          ref={actions}
          className="max-w-[94vw] px-3 py-1.5"
          onEscape={() => editor.chain().focus().setTextSelection(editor.state.selection.to).run()}
        >
          <Actions
            editor={editor}
            chosen={chosen}
            onShorten={() => setShortening(chosen)}
            onReplace={replace}
            onSettle={() => onSettle(chosen.annotationId)}
          />
        </Beneath>
      )}
      {shortening && (
        <ShortenDialog
          markdown={shortening.markdown}
          onSave={(markdown) => {
            setShortening(undefined);
            replace(markdown);
          }}
          onClose={() => setShortening(undefined)}
        />
      )}
    </>
  );
}

function boxOf(editor: Editor, at: number): DOMRect | null {
  const shown = editor.isDestroyed ? null : editor.view.nodeDOM(at);
  return shown instanceof Element ? shown.getBoundingClientRect() : null;
}

/** By Enter one comes from the chosen excerpt to what can be done with it. */
function useEnter(editor: Editor, isChosen: boolean): RefObject<HTMLDivElement | null> {
  const actions = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!isChosen) return undefined;
    const enter = (event: KeyboardEvent): void => {
      if (event.key !== 'Enter' || !actions.current) return;
      event.preventDefault();
      event.stopPropagation();
      actions.current.querySelector('button')?.focus();
    };
    const { dom } = editor.view;
    dom.addEventListener('keydown', enter, true);
    return () => dom.removeEventListener('keydown', enter, true);
  }, [editor, isChosen]);
  return actions;
}

interface ActionsProps {
  readonly editor: Editor;
  readonly chosen: Chosen;
  onShorten(): void;
  onReplace(markdown: string): void;
  onSettle(): void;
}

function Actions({ editor, chosen, onShorten, onReplace, onSettle }: ActionsProps) {
  const { newer, state } = chosen.known ?? { newer: null, state: undefined };
  const act = (words: string, run: () => void) => (
    <button type="button" className="act" onMouseDown={(e) => e.preventDefault()} onClick={run}>
      {words}
    </button>
  );
  return (
    <div className="grid gap-1">
      {state === 'changed' && newer !== null && (
        <p className="flex flex-wrap gap-x-4">
          <span className="text-soft">The highlight was changed since.</span>
          {act('Take the new one', () => onReplace(newer))}
          {act('Leave it as it is', onSettle)}
        </p>
      )}
      <p className="flex flex-wrap gap-x-4 gap-y-1">
        {act('Shorten…', onShorten)}
        {act('Write below', () => writeBelow(editor))}
        {act('Move up', () => moveExcerpt(editor, -1))}
        {act('Move down', () => moveExcerpt(editor, 1))}
        <MakeCard annotationIds={[chosen.annotationId]} />
        {act('Make it my words', () => detach(editor, chosen.markdown))}
        {act('Remove', () => editor.chain().focus().deleteSelection().run())}
      </p>
    </div>
  );
}

function writeBelow(editor: Editor): void {
  const { to } = editor.state.selection;
  editor
    .chain()
    .insertContentAt(to, { type: 'paragraph' })
    .setTextSelection(to + 1)
    .focus()
    .run();
}

/** The words of the passage as words of one's own; they no longer follow, nor lead back. */
function detach(editor: Editor, markdown: string): void {
  const { selection } = editor.state;
  if (!(selection instanceof NodeSelection)) return;
  const content = fromMarkdown(readExcerpt(markdown)?.passage ?? '').content ?? [];
  editor.chain().focus().insertContentAt({ from: selection.from, to: selection.to }, content).run();
}
