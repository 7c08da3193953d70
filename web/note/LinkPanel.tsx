import { useDeferredValue, useState } from 'react';
import type { Editor } from '@tiptap/react';
import { Popover } from 'radix-ui';
import { plainWords } from '@avrelle/core/markdown';
import { linkAddress, type NoteLink } from '@avrelle/core/note';
import { asWords } from '@avrelle/core/query';
import { useFound, useSources } from '../data/queries';
import { Sign } from '../ui/Sign';

/** Begins a link: to an address, or to a source or an annotation that is looked for by its words. */
export function LinkPanel({ editor, active }: { editor: Editor; active: boolean }) {
  const [open, setOpen] = useState(false);
  const begin = (next: boolean): void => {
    if (next && active) return void editor.chain().focus().extendMarkRange('link').unsetLink().run();
    setOpen(next);
  };
  const link = (href: string, words: string): void => {
    setOpen(false);
    const { empty } = editor.state.selection;
    const chain = editor.chain().focus();
    if (empty)
      chain
        .insertContent([
          { type: 'text', text: words, marks: [{ type: 'link', attrs: { href } }] },
          { type: 'text', text: ' ' },
        ])
        .unsetMark('link')
        .run();
    else chain.setLink({ href }).run();
  };
  return (
    <Popover.Root open={open} onOpenChange={begin}>
      <Popover.Trigger
        type="button"
        aria-label={active ? 'Remove the link' : 'Link'}
        title={active ? 'Remove the link' : 'Link to a source, an annotation or an address'}
        className={`min-w-[25px] pointer-coarse:min-w-[44px] px-1 py-0.5 hover:bg-wash ${active ? 'bg-wash text-tide' : 'text-soft'}`}
      >
        <svg aria-hidden="true" viewBox="0 0 16 16" width="15" height="15" className="inline">
          <path
            d="M6.5 9.5l3-3M7 4.5l2-2a3 3 0 0 1 4.3 4.3l-2 2M9 11.5l-2 2a3 3 0 0 1-4.3-4.3l2-2"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.4"
            strokeLinecap="round"
          />
        </svg>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Link"
          align="end"
          sideOffset={6}
          className="over w-[330px] max-w-[94vw] p-3 text-[14px]"
          onKeyDown={(e) => e.stopPropagation()}
        >
          {open && <Search onLink={link} />}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const MOST = 5;

/** What was typed as an address; one without a scheme gets one. */
function addressIn(query: string): string | undefined {
  if (/^(https?:\/\/|mailto:)\S+$/i.test(query)) return query;
  return /^[\w-]+(\.[\w-]+)+(\/\S*)?$/.test(query) ? `http://${query}` : undefined;
}

function Search({ onLink }: { onLink: (href: string, words: string) => void }) {
  const [words, setWords] = useState('');
  const query = useDeferredValue(words.trim());
  const address = addressIn(query);
  const asked = { q: asWords(query), limit: MOST };
  const wanted = asked.q !== '' && !address;
  const annotations = useFound(asked, wanted).data?.annotations ?? [];
  const sources = useSources(asked, wanted).data?.sources ?? [];
  const item = (link: NoteLink, name: string, body: React.ReactNode) => (
    <li key={link.id}>
      <button
        type="button"
        className="block w-full px-2 py-1.5 text-left hover:bg-wash focus-visible:bg-wash"
        onClick={() => onLink(linkAddress(link), name)}
      >
        {body}
      </button>
    </li>
  );
  return (
    <>
      <input
        autoFocus
        aria-label="Where the link leads"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        placeholder="Words of a source or a note, or an address"
        className="field"
        onKeyDown={(e) => {
          if (e.key === 'Enter' && address) {
            e.preventDefault();
            onLink(address, query);
          }
        }}
      />
      {address && (
        <button type="button" className="act mt-2" onClick={() => onLink(address, query)}>
          Link to this address
        </button>
      )}
      {query && !address && (
        <ul className="mt-2 max-h-[260px] overflow-y-auto">
          {sources.map((s) =>
            item({ type: 'source', id: s.id }, s.title, <span className="font-read">{s.title}</span>),
          )}
          {annotations.map((a) => {
            const quote = a.quote.map((p) => p.text).join('');
            const note = plainWords(a.note.map((p) => p.text).join(''));
            return item(
              { type: 'annotation', id: a.id },
              (note || quote).slice(0, 60),
              <>
                <span className="block text-[12.5px] text-soft">
                  <Sign kind={a.kind} /> {a.author.name}, {a.title}
                </span>
                <span className="line-clamp-2">{note || <i className="font-read">{quote}</i>}</span>
              </>,
            );
          })}
          {sources.length + annotations.length === 0 && (
            <li className="px-2 py-1 text-soft">Nothing has these words.</li>
          )}
        </ul>
      )}
    </>
  );
}
