import { Suspense, type ReactNode } from 'react';
import { useDocument } from '../../document/document-context';
import { frameSandbox } from '../../../page/sandbox';
import { READER_TEXT } from '../../landmarks';
import { useSession } from '../../session/reader-context';

/** The sandboxed frame in which the document stands; `children` is what lies over it. */
export function Frame({ children }: { readonly children?: ReactNode }) {
  const { source } = useSession();
  const { page, layout, height, size, type, hold, onLoad } = useDocument();
  const { width, scale } = size;
  const theme = type.paper === 'as Avrelle' ? undefined : type.paper;
  return (
    <div ref={hold} data-theme={theme} className="relative min-w-0 overflow-x-auto overflow-y-hidden bg-sheet text-ink">
      <div className="relative" style={{ width: width === undefined ? '100%' : width * scale, height }}>
        <iframe
          id={READER_TEXT}
          title={`Text of ${source.title}`}
          src={`/snapshots/${source.versionId}/`}
          sandbox={frameSandbox()}
          scrolling="no"
          dir="auto"
          lang={source.language || undefined}
          className="origin-top-left"
          style={{
            width: width ?? '100%',
            height: height / scale,
            // Until it is dressed it is not even laid out.
            display: page ? 'block' : 'none',
            visibility: layout > 0 ? 'visible' : 'hidden',
            ...(scale === 1 ? {} : { transform: `scale(${scale})` }),
          }}
          onLoad={(e) => onLoad(e.currentTarget)}
        />
        <Suspense>{children}</Suspense>
      </div>
    </div>
  );
}
