import { useEffect, useState } from 'react';
import type { AreaSpot } from '@avrelle/core/anchor';
import { wordsOf } from '../data/api';
import { Alert } from '../ui/Alert';

interface Props {
  readonly spot: AreaSpot;
  readonly versionId: string;
  /** The area lies under a slip now. */
  readonly covered: boolean;
  onLift?(): void;
}

/** Pixels across, as a page is drawn. */
const WIDE = 900;

/** A picture or page with the area that is meant, under a slip or framed. */
export function AreaPicture({ spot, versionId, covered, onLift }: Props) {
  const { address, problem } = usePicture(spot, versionId);
  const share = (of: number): string => `${of * 100}%`;
  const place = { left: share(spot.x), top: share(spot.y), width: share(spot.width), height: share(spot.height) };
  if (problem) return <Alert>{problem}</Alert>;
  return (
    <div className="relative w-fit max-w-full border border-rule">
      {address && <img src={address} alt="The picture that was marked" className="block max-h-[60vh] max-w-full" />}
      {address && (
        <span
          style={place}
          className={`absolute ${covered ? 'slip-area' : 'border-2 border-tide'}`}
          onClick={covered ? onLift : undefined}
        >
          <span className="sr-only">{covered ? 'An area under a slip' : 'The area'}</span>
        </span>
      )}
    </div>
  );
}

/** A picture has its own address; a page of a document is drawn. */
function usePicture({ on }: AreaSpot, versionId: string): { address?: string; problem?: string } {
  const page = 'page' in on ? on.page : undefined;
  const [drawn, setDrawn] = useState<{ address?: string; problem?: string }>({});
  useEffect(() => {
    if (page === undefined) return undefined;
    let gone = false;
    let made: string | undefined;
    drawPage(`/files/${versionId}`, page).then(
      (blob) => {
        if (gone) return;
        made = URL.createObjectURL(blob);
        setDrawn({ address: made });
      },
      (error: unknown) => !gone && setDrawn({ problem: wordsOf(error) }),
    );
    return () => {
      gone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [versionId, page]);
  return page === undefined && 'picture' in on ? { address: `/snapshots/${versionId}/asset/${on.picture}` } : drawn;
}

async function drawPage(file: string, number: number): Promise<Blob> {
  const { openPdf } = await import('../reader/document/pdf/pdf-file');
  const page = await (await openPdf(file, undefined)).getPage(number);
  const viewport = page.getViewport({ scale: WIDE / page.getViewport({ scale: 1 }).width });
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(viewport.width);
  canvas.height = Math.round(viewport.height);
  await page.render({ canvas, viewport }).promise;
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The page cannot be drawn here.'))));
  });
}
