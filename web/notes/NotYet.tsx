import { useDeferredValue, useState } from 'react';
import { useEditorState, type Editor } from '@tiptap/react';
import type { StudyCandidate, StudyNote } from '@avrelle/core/wire';
import { useCandidates } from '../data/study-queries';
import { MarkedText } from '../ui/MarkedText';
import { Sign } from '../ui/Sign';
import { count } from '../ui/when';
import { eachExcerpt, excerptAttributes } from './excerpt-node';
import { putHere } from './use-study-editor';

/** What could be put into a note: marks that do not stand in it, found by a search. */
export function NotYet({ note, editor }: { note: StudyNote; editor: Editor }) {
  const [typed, setTyped] = useState('');
  const q = useDeferredValue(typed.trim());
  const { data, error } = useCandidates(note.id, q);
  const standing = useStanding(editor);
  const free = data?.candidates.filter((one) => !standing.has(one.id)) ?? [];
  const total = Math.max(free.length, (data?.total ?? 0) - ((data?.candidates.length ?? 0) - free.length));
  return (
    <section>
      <h2 className="text-[17px]">Not in this note yet</h2>
      <input
        type="search"
        aria-label="Search what you marked"
        placeholder={note.sourceId === null ? 'words, tag:essay, kind:claim …' : 'this source, or words, tag:essay …'}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        className="field mt-1 text-[14px]"
      />
      <p role="status" className="mt-1 text-[13px] text-soft">
        {error ? error.message : data && wordsFor(free.length, total, q)}
      </p>
      <ul className="mt-1">
        {free.map((one) => (
          <Candidate key={one.id} one={one} onPut={() => putHere(editor, one.id, one.excerpt)} />
        ))}
      </ul>
    </section>
  );
}

function wordsFor(shown: number, total: number, q: string): string {
  if (total === 0) return q ? 'Nothing else fits.' : 'Everything you marked stands in it.';
  return shown < total ? `${shown} of ${count(total, 'mark')}` : count(total, 'mark');
}

/** The annotations that stand in the note as it is now. */
function useStanding(editor: Editor): ReadonlySet<string> {
  const ids = useEditorState({
    editor,
    selector: ({ editor: now }) => {
      const found: string[] = [];
      eachExcerpt(now.state.doc, (node) => found.push(String(node.attrs.annotationId)));
      return found.join(' ');
    },
  });
  return new Set(ids.split(' '));
}

function Candidate({ one, onPut }: { one: StudyCandidate; onPut: () => void }) {
  const quote = one.quote.map((piece) => piece.text).join('');
  return (
    <li
      draggable
      onDragStart={(event) => {
        const made = Object.assign(document.createElement('blockquote'), { textContent: quote });
        const attributes = excerptAttributes({ annotationId: one.id, markdown: one.excerpt });
        for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value);
        event.dataTransfer.setData('text/html', made.outerHTML);
        event.dataTransfer.setData('text/plain', one.excerpt);
        event.dataTransfer.effectAllowed = 'copy';
      }}
      className="cursor-grab border-t border-rule py-2"
    >
      <p dir="auto" lang={one.language || undefined} className="line-clamp-3 font-read text-[15px] leading-[21px]">
        <MarkedText pieces={one.quote} />
      </p>
      {one.note.length > 0 && (
        <p dir="auto" className="line-clamp-2 text-[13px] text-soft">
          <MarkedText pieces={one.note} />
        </p>
      )}
      <p className="flex items-baseline gap-2 text-[13px] text-soft">
        <span title={one.kind.name}>
          <Sign kind={one.kind} />
          <span className="sr-only">{one.kind.name}</span>
        </span>
        <span className="min-w-0 flex-1 truncate">{one.reference}</span>
        <button className="act reach" aria-label={`Put here: ${quote.slice(0, 60)}`} onClick={onPut}>
          Put here
        </button>
      </p>
    </li>
  );
}
