import { Popover } from 'radix-ui';
import { useState } from 'react';
import { request, wordsOf } from '../data/api';
import { Alert } from '../ui/Alert';
import { useMessages } from '../ui/Messages';

/** Study notes of this source: to the clipboard, or as a file. */
export function TakeOut({ sourceId }: { sourceId: string }) {
  const [whose, setWhose] = useState<'mine' | 'all'>('mine');
  const [wrong, setWrong] = useState('');
  const messages = useMessages();
  const address = `/api/sources/${sourceId}/study-notes.md?whose=${whose}`;
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(await request<string>('GET', address));
      setWrong('');
      messages.tell('Study notes copied. Paste them wherever you write.');
    } catch (error) {
      setWrong(`Could not copy (${wordsOf(error)}). Save the file instead.`);
    }
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="act">Take out <span aria-hidden="true">▾</span></Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={8} align="end" className="over grid w-[330px] gap-3 p-4 text-[14px]" aria-label="Take out study notes">
          <p className="text-soft">Highlights and notes in document order, as Markdown with the reference on top.</p>
          <fieldset className="flex gap-5">
            <legend className="sr-only">Whose</legend>
            {([['mine', 'Mine, with answers'], ['all', 'All I can see']] as const).map(([value, words]) => (
              <label key={value} className="flex items-center gap-1.5"><input type="radio" name="whose" className="accent-[var(--tide)]" checked={whose === value} onChange={() => setWhose(value)} />{words}</label>
            ))}
          </fieldset>
          <Alert>{wrong}</Alert>
          <div className="flex items-center gap-4">
            <button className="press" onClick={() => void copy()}>Copy</button>
            <a className="act" href={address} download>Save as file</a>
            <a className="ml-auto text-[13px] text-soft underline underline-offset-2" href={`/api/sources/${sourceId}/annotations.jsonld?whose=${whose}`} download title="W3C Web Annotation, JSON-LD">W3C annotations</a>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
