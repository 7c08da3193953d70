import { useCallback } from 'react';
import type { AreaSpot } from '@avrelle/core/anchor';
import { fileNameOf } from '@avrelle/core/export';
import type { SourceDetail } from '@avrelle/core/wire';
import { wordsOf } from '../../data/api';
import { useMessages } from '../../ui/Messages';
import type { Thread } from '../model/thread';
import type { OpenPage } from '../document/use-page';
import type { Laid } from './laid';

/** Giving what is marked as a picture: an area, or a whole picture. */
export function usePictures(
  source: SourceDetail,
  page: OpenPage | undefined,
  threads: readonly Thread[],
  laid: readonly Laid[],
) {
  const messages = useMessages();
  const give = useCallback(
    (on: AreaSpot['on'], region?: AreaSpot): void => {
      if (!page) return;
      void import('./marked-picture')
        .then(async ({ download, markedPicture }) =>
          download(
            await markedPicture({ adapter: page.adapter, on, ...(region ? { region } : {}), laid, threads }),
            `${fileNameOf(source.title)}.png`,
          ),
        )
        .catch((error: unknown) => messages.warn(wordsOf(error)));
    },
    [page, threads, laid, source.title, messages],
  );
  return {
    downloadArea: useCallback((spot: AreaSpot) => give(spot.on, spot), [give]),
    downloadPicture:
      source.kind === 'image' && source.lead !== null ? () => give({ picture: source.lead! }) : undefined,
  };
}
