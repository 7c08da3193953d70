import { useEffect, useRef } from 'react';
import type { Block } from '@avrelle/core/text';
import type { OpenPage } from '../../document/use-page';
import { lineAt, timeOf } from './times';

/** After the reader scrolled the page themselves, it stays where it is for this long, in milliseconds. */
const LEFT_ALONE = 5_000;

/** Paints the line that is spoken, and keeps it in view while the recording plays. */
export function useSpoken(
  page: OpenPage | undefined,
  now: number,
  playing: boolean,
  onFollow: (block: Block) => void,
): void {
  const alone = useRef(0);
  const line = page && lineAt(page.adapter.stream.outline, now + 0.05);
  const said = line && (playing || now > 0) && now <= timeOf(line)!.to + 2 ? line : undefined;
  const latest = useRef(onFollow);
  useEffect(() => {
    latest.current = onFollow;
  });
  useEffect(() => {
    page?.painter.cue(said);
    if (said && playing && Date.now() > alone.current) latest.current(said);
    // Only when another line is spoken.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [page, said?.start, playing]);
  useEffect(() => {
    const document = page?.adapter.document;
    const onWheel = (): void => {
      alone.current = Date.now() + LEFT_ALONE;
    };
    document?.addEventListener('wheel', onWheel, { passive: true });
    return () => document?.removeEventListener('wheel', onWheel);
  }, [page]);
}

/** The times stand left of their lines: a click on one goes there. */
export function useTimeClicks(page: OpenPage | undefined, go: (seconds: number) => void): void {
  const latest = useRef(go);
  useEffect(() => {
    latest.current = go;
  });
  useEffect(() => {
    const document = page?.adapter.document;
    const onClick = (event: MouseEvent): void => {
      const line = (event.target as Element | null)?.closest?.<HTMLElement>('[data-avrelle-from]');
      if (line && event.clientX < line.getBoundingClientRect().left) latest.current(Number(line.dataset.avrelleFrom));
    };
    document?.addEventListener('click', onClick);
    return () => document?.removeEventListener('click', onClick);
  }, [page]);
}
