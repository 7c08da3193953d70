import { useRef, type ReactNode } from 'react';
import { useEditorState, type Editor } from '@tiptap/react';
import { LinkPanel } from './LinkPanel';

interface Props {
  readonly editor: Editor;
  onPictures(files: readonly File[]): void;
  /** Long notes have headings. */
  readonly headings?: boolean;
}

/** How words look, what they lead to, and what else can stand among them. */
export function EditorTools({ editor, onPictures, headings = false }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      heading: now.isActive('heading'),
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
    <div
      role="toolbar"
      aria-label="Style of the note"
      className={`flex items-center ${headings ? 'min-w-0 max-w-full overflow-x-auto' : 'border-b border-rule pb-0.5'}`}
    >
      {headings && tool('Heading', 'H', on.heading, () => chain().toggleHeading({ level: 2 }).run())}
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
      {tool('Picture', <PictureIcon />, false, () => file.current?.click())}
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

const PictureIcon = () => (
  <svg aria-hidden="true" viewBox="0 0 16 16" width="15" height="15" className="inline">
    <path
      d="M1.5 2.5h13v11h-13zM2 11.5l4-4 3 3 2-2 3 3M11 6h.01"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.3"
      strokeLinecap="round"
    />
  </svg>
);
