import { useCallback, useEffect, useRef, useState } from 'react';
import { dwellOn, type Dwell, type Spans } from '@avrelle/core/reading';
import type { SourceDetail } from '@avrelle/core/wire';
import { call } from '../../data/call';
import type { PlacedBlock } from '../document/use-layout';
import type { Scroll } from '../model/reader-state';

const TICK = 1_000;
const SAVE_EVERY = 10_000;

interface Progress {
  readonly dwell: Dwell;
  readonly spans: Spans;
  readonly saved: Spans;
  readonly position: number;
  readonly savedPosition: number;
}

/** Follows what is on screen, second by second, while somebody is there; keeps it on the server with the place. */
export function useReading(
  source: SourceDetail | undefined,
  text: string | undefined,
  blocks: readonly PlacedBlock[],
  scroll: () => Scroll | undefined,
): readonly [Spans, (spans: Spans) => void] {
  const [spans, setSpans] = useState<Spans | undefined>();
  const state = useRef<Progress>(undefined);
  const saveNow = useRef<() => void>(() => undefined);
  const id = source?.id;
  const known = spans ?? source?.spans ?? [];

  useEffect(() => {
    if (!id || text === undefined || blocks.length === 0) return;
    state.current ??= {
      dwell: new Map(),
      spans: source!.spans,
      saved: source!.spans,
      position: source!.position,
      savedPosition: source!.position,
    };
    const tick = setInterval(() => {
      const view = scroll();
      if (!view || document.hidden || !document.hasFocus()) return;
      const visible = blocks.filter((b) => b.top < view.top + view.height && b.bottom > view.top).map((b) => b.block);
      const now = state.current!;
      const after = dwellOn(text, visible, TICK, now);
      if (after.spans !== now.spans) setSpans(after.spans);
      state.current = { ...now, ...after, position: visible[0]?.start ?? now.position };
    }, TICK);
    const save = (): void => {
      const now = state.current!;
      if (now.spans === now.saved && now.position === now.savedPosition) return;
      state.current = { ...now, saved: now.spans, savedPosition: now.position };
      store(source!, now).catch(() => {
        if (state.current) state.current = { ...state.current, saved: [] };
      });
    };
    saveNow.current = save;
    const saver = setInterval(save, SAVE_EVERY);
    return () => {
      clearInterval(tick);
      clearInterval(saver);
      save();
    };
  }, [id, text, blocks, scroll, source]);
  const correct = useCallback((to: Spans) => {
    if (state.current) state.current = { ...state.current, dwell: new Map(), spans: to };
    setSpans(to);
    saveNow.current();
  }, []);
  return [known, correct];
}

/** What has been read, and the place; what was only to be read is being read from then on. */
function store({ id, versionId, state }: SourceDetail, { spans, position }: Pick<Progress, 'spans' | 'position'>) {
  const started = state === 'to_read' && spans.length > 0 ? { state: 'reading' as const } : {};
  return call('PUT /api/sources/:id/shelf', { params: { id }, body: { versionId, spans, position, ...started } });
}
