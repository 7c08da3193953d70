import { useMemo } from 'react';
import type { AreaSpot } from '@avrelle/core/anchor';
import { fileNameOf } from '@avrelle/core/export';
import { wordsOf } from '../../data/api';
import { useMessages } from '../../ui/Messages';
import { useDocument } from '../document/document-context';
import { useSession } from '../session/reader-context';

export interface Pictures {
  downloadArea(spot: AreaSpot): void;
  /** The whole picture with its marks; undefined where the source is none. */
  readonly downloadPicture: (() => void) | undefined;
}

/** Giving what is marked as a picture: an area, or a whole picture. */
export function usePictures(): Pictures {
  const { source, visible: threads } = useSession();
  const { page, laid } = useDocument();
  const messages = useMessages();
  return useMemo((): Pictures => {
    const give = (on: AreaSpot['on'], region?: AreaSpot): void => {
      if (!page) return;
      void import('./marked-picture')
        .then(async ({ download, markedPicture }) =>
          download(
            await markedPicture({ adapter: page.adapter, on, ...(region ? { region } : {}), laid, threads }),
            `${fileNameOf(source.title)}.png`,
          ),
        )
        .catch((error: unknown) => messages.warn(wordsOf(error)));
    };
    const picture = source.kind === 'image' ? source.lead : null;
    return {
      downloadArea: (spot) => give(spot.on, spot),
      downloadPicture: picture === null ? undefined : () => give({ picture }),
    };
  }, [page, threads, laid, source.kind, source.lead, source.title, messages]);
}
