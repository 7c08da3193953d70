import type { SourceId } from '@avrelle/core/wire';
import { Popover } from 'radix-ui';
import { Link } from 'react-router';
import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { wordsOf } from '../../../data/api';
import { callForText, hrefOf } from '../../../data/call';
import { renew } from '../../../data/queries';
import { useWrite } from '../../../data/use-write';
import { Alert } from '../../../ui/Alert';
import { FileButton } from '../../../ui/FileButton';
import { useMessages } from '../../../ui/Messages';
import { count } from '../../../ui/when';

/** Annotations of another program, as a file of W3C annotations, become one's own. */
function BringIn({ sourceId, onWrong }: { sourceId: SourceId; onWrong: (words: string) => void }) {
  const client = useQueryClient();
  const messages = useMessages();
  const bringing = useWrite('POST /api/sources/:id/annotations.jsonld');
  const bring = async (chosen: File): Promise<void> => {
    try {
      const given = await chosen.text();
      JSON.parse(given);
      const { brought, already, refused } = await bringing.send({
        params: { id: sourceId },
        file: new Blob([given], { type: 'application/ld+json' }),
      });
      await renew(client, 'annotations', sourceId);
      messages.tell(`${count(brought, 'annotation')} brought in${already ? `, ${already} there before` : ''}.`);
      onWrong(
        refused.length
          ? `${refused.length} of the file could not be placed. Number ${refused[0]!.number}: ${refused[0]!.why}`
          : '',
      );
    } catch (error) {
      onWrong(
        error instanceof SyntaxError
          ? `“${chosen.name}” is not JSON. Choose a file of W3C annotations (.jsonld or .json).`
          : wordsOf(error),
      );
    }
  };
  return (
    <p className="border-t border-rule pt-3 text-soft">
      <FileButton
        label="File of W3C annotations"
        accept=".json,.jsonld,application/json,application/ld+json"
        onChosen={([chosen]) => void bring(chosen!)}
      >
        Bring in
      </FileButton>{' '}
      W3C annotations of another program.
    </p>
  );
}

/** Study notes of this source: to the clipboard, or as a file. */
export function ExportMenu({ sourceId }: { sourceId: SourceId }) {
  const [whose, setWhose] = useState<'mine' | 'all'>('mine');
  const [wrong, setWrong] = useState('');
  const messages = useMessages();
  const given = { params: { id: sourceId }, query: { whose } };
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(await callForText('GET /api/sources/:id/study-notes.md', given));
      setWrong('');
      messages.tell('Study notes copied. Paste them wherever you write.');
    } catch (error) {
      setWrong(`Could not copy (${wordsOf(error)}). Save the file instead.`);
    }
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="act whitespace-nowrap">
        Export <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={8}
          align="end"
          className="over grid w-[330px] gap-3 p-4 text-[14px]"
          aria-label="Export study notes"
        >
          <p>
            <Link className="act" to={`/source/${sourceId}/note`}>
              Open its study note
            </Link>{' '}
            <span className="text-soft">It fills itself, and is yours to write in.</span>
          </p>
          <p className="border-t border-rule pt-3 text-soft">
            Highlights and notes in document order, as Markdown with the reference on top.
          </p>
          <fieldset className="flex gap-5">
            <legend className="sr-only">Whose</legend>
            {(
              [
                ['mine', 'Mine, with answers'],
                ['all', 'All I can see'],
              ] as const
            ).map(([value, words]) => (
              <label key={value} className="flex items-center gap-1.5">
                <input
                  type="radio"
                  name="whose"
                  className="accent-[var(--tide)]"
                  checked={whose === value}
                  onChange={() => setWhose(value)}
                />
                {words}
              </label>
            ))}
          </fieldset>
          <Alert>{wrong}</Alert>
          <div className="flex items-center gap-4">
            <button className="press" onClick={() => void copy()}>
              Copy
            </button>
            <a className="act" href={hrefOf('GET /api/sources/:id/study-notes.md', given)} download>
              Save as file
            </a>
            <a
              className="reach ml-auto text-[13px] text-soft underline underline-offset-2"
              href={hrefOf('GET /api/sources/:id/annotations.jsonld', given)}
              download
              title="W3C Web Annotation, JSON-LD"
            >
              W3C annotations
            </a>
          </div>
          <BringIn sourceId={sourceId} onWrong={setWrong} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
