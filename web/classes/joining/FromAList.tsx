import { useState } from 'react';
import type { AnswerOf, Api } from '@avrelle/core/api';
import type { ClassDetail, JoinLink, RosterPreview } from '@avrelle/core/wire';
import { wordsOf } from '../../data/api';
import { joinAddress } from '../../data/joining-queries';
import { useWrite } from '../../data/use-write';
import { Alert } from '../../ui/Alert';
import { FileButton } from '../../ui/FileButton';
import { useCopy } from '../../ui/use-copy';
import { count } from '../../ui/when';
import { ListPreview } from './ListPreview';

type Added = AnswerOf<Api['POST /api/classes/:id/roster']>;

/** People from a list: looked at first, then added. */
export function FromAList({ of: c }: { readonly of: ClassDetail }) {
  const look = useWrite('POST /api/classes/:id/roster/preview');
  const [found, setFound] = useState<RosterPreview>();
  const [added, setAdded] = useState<Added>();
  const [wrong, setWrong] = useState('');
  const read = (files: readonly File[]): void => {
    setWrong('');
    setAdded(undefined);
    const file = new Blob(files.slice(0, 1), { type: 'application/octet-stream' });
    look.send({ params: { id: c.id }, file }).then(setFound, (error: unknown) => {
      setFound(undefined);
      setWrong(wordsOf(error));
    });
  };
  return (
    <section aria-label="From a list">
      <h2 className="text-[18px]">From a list</h2>
      <p className="mb-2 max-w-[62ch] text-[14px] text-soft">
        A table saved as CSV, with a name and an e-mail address on each line, or a OneRoster archive from your school.
        You see who is on it before anybody is added.
      </p>
      <FileButton label="List of people" accept=".csv,.txt,.zip" onChosen={read}>
        {look.isPending ? 'Reading…' : 'Choose a file…'}
      </FileButton>
      <div className="mt-2">
        <Alert>{wrong}</Alert>
      </div>
      {found && (
        <ListPreview
          of={c}
          found={found}
          onClose={() => setFound(undefined)}
          onAdded={(answer) => {
            setFound(undefined);
            setAdded(answer);
          }}
        />
      )}
      {added && <Outcome added={added} />}
    </section>
  );
}

const linesOf = (links: readonly JoinLink[]): string =>
  links.map(({ forWhom, email, token }) => [forWhom, email, joinAddress(token)].join('\t')).join('\n');

function Outcome({ added: { added, invited } }: { readonly added: Added }) {
  const copy = useCopy();
  return (
    <div role="status" className="mt-2 border-l-[3px] border-l-tide bg-paper px-4 py-2.5 text-[15px]">
      <p>
        {added > 0 ? `${count(added, 'person is', 'people are')} in the class now. ` : ''}
        {invited.length > 0 &&
          `${count(invited.length, 'person has', 'people have')} no account yet: hand each the link that is theirs.`}
        {added + invited.length === 0 && 'All of them were in the class already.'}
      </p>
      {invited.length > 0 && (
        <button
          className="act mt-1 text-[14px]"
          onClick={() => copy(linesOf(invited), 'Names, addresses and links are on the clipboard, as a table.')}
        >
          Copy {invited.length === 1 ? 'the link' : `all ${invited.length} links`}
        </button>
      )}
    </div>
  );
}
