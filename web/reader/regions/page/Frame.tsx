import { Suspense, type ReactNode } from 'react';
import type { SourceDetail } from '@avrelle/core/wire';
import type { FrameSize } from '../../document/use-frame-size';

interface Props {
  readonly source: SourceDetail;
  readonly size: FrameSize;
  /** As shown. */
  readonly height: number;
  /** False until it is dressed: until then it is not even laid out. */
  readonly open: boolean;
  readonly shown: boolean;
  /** The theme of the page where it is not that of Avrelle. */
  readonly theme?: 'day' | 'night' | undefined;
  /** What lies over it. */
  readonly children?: ReactNode;
  hold(node: HTMLElement | null): (() => void) | undefined;
  onLoad(frame: HTMLIFrameElement): void;
}

/** The sandboxed frame in which the document stands. */
export function Frame({ source, size: { width, scale }, height, open, shown, theme, children, hold, onLoad }: Props) {
  return (
    <div ref={hold} data-theme={theme} className="relative min-w-0 overflow-x-auto overflow-y-hidden bg-sheet text-ink">
      <div className="relative" style={{ width: width === undefined ? '100%' : width * scale, height }}>
        <iframe
          title={`Text of ${source.title}`}
          src={`/snapshots/${source.versionId}/`}
          sandbox="allow-same-origin"
          scrolling="no"
          dir="auto"
          lang={source.language || undefined}
          className="origin-top-left"
          style={{
            width: width ?? '100%',
            height: height / scale,
            display: open ? 'block' : 'none',
            visibility: shown ? 'visible' : 'hidden',
            ...(scale === 1 ? {} : { transform: `scale(${scale})` }),
          }}
          onLoad={(e) => onLoad(e.currentTarget)}
        />
        <Suspense>{children}</Suspense>
      </div>
    </div>
  );
}
