import { useState } from 'react';
import type { SourceDetail } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { useJobBegun } from '../../../data/use-job-begun';
import { useWrite } from '../../../data/use-write';
import { useMessages } from '../../../ui/Messages';
import { count } from '../../../ui/when';
import { Strip } from './Strip';

/** What a reader must know of how this was kept, with the way on. Put away for this visit by its cross. */
export function Facts({ source }: { source: SourceDetail }) {
  const again = useWrite('POST /api/sources/:id/again');
  const begun = useJobBegun();
  const messages = useMessages();
  const [away, setAway] = useState(false);
  const { scripted, remote = 0, scanned = 0, pages = 0 } = source.facts;
  const fetchPictures = (): void =>
    again.run({ params: { id: source.id }, body: { id: v7(), remote: true } }, (job) => {
      begun(job);
      messages.tell('The pictures are being fetched; they come as a new version.');
      setAway(true);
    });
  const words = wordsFor({ scripted, remote, scanned, pages });
  if (!words || away) return null;
  return (
    <Strip>
      <span className="min-w-0 flex-1">{words}</span>
      {remote > 0 && source.owned && source.versionNumber === source.newest && (
        <button className="act" onClick={fetchPictures}>
          Fetch the pictures
        </button>
      )}
      <button aria-label="Hide this" className="text-faint hover:text-ink" onClick={() => setAway(true)}>
        ×
      </button>
    </Strip>
  );
}

interface Known {
  readonly scripted: true | undefined;
  /** Pictures that lie with a letter's sender. */
  readonly remote: number;
  /** Pages that are pictures, of so many. */
  readonly scanned: number;
  readonly pages: number;
}

function wordsFor({ scripted, remote, scanned, pages }: Known): string {
  if (scripted)
    return 'A script makes this page’s content in a browser; only what stood here without it was kept. To have it all, save the page in your browser and upload that file.';
  if (remote > 0)
    return `${count(remote, 'picture')} of this letter ${remote === 1 ? 'lies' : 'lie'} with its sender. Fetching tells them that it was opened.`;
  if (scanned === 0) return '';
  const some = `${count(scanned, 'page')} of ${pages} ${scanned === 1 ? 'is a picture' : 'are pictures'} without text`;
  const which = scanned === pages ? 'This PDF holds pictures of pages, without text' : some;
  return `${which}: there are no words there to mark or find.`;
}
