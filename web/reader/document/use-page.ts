import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { flushOnInput } from '../../data/deferred';
import { useTheme } from '../../theme/use-theme';
import { openPage, type PageAdapter } from '../../page/page-frame';
import { isOverPicture, loadReadingFace, PageDress, type Dressing } from './page-style';
import type { Type } from './type';
import { Painter } from '../../page/painter';

/** How long a page waits for its face, in milliseconds. */
const FACE_WAITS = 300;

export interface OpenPage {
  readonly adapter: PageAdapter;
  readonly painter: Painter;
}

/**
 * Opens the document in a frame once it has loaded, dresses it, and follows its height. `layout` counts its layouts;
 * `scale` is how much smaller than its own pixels the frame is shown.
 */
export function usePage({ view, kind, unit, type }: Dressing, scale: number) {
  const theme = useTheme();
  const [page, setPage] = useState<OpenPage>();
  const [height, setHeight] = useState(400);
  const [layout, setLayout] = useState(0);
  const dress = useRef<PageDress>(undefined);
  const observer = useRef<ResizeObserver>(undefined);

  const onLoad = useCallback((frame: HTMLIFrameElement) => {
    const adapter = openPage(frame);
    const root = adapter.document.documentElement;
    // What speaks the page to those who do not see it asks the document itself.
    if (frame.lang) root.lang ||= frame.lang;
    dress.current = new PageDress(adapter.document, adapter.window);
    observer.current?.disconnect();
    observer.current = new ResizeObserver(() => {
      setHeight(Math.ceil(Math.max(root.getBoundingClientRect().height, adapter.document.body.scrollHeight)));
      setLayout((n) => n + 1);
    });
    observer.current.observe(root);
    observer.current.observe(adapter.document.body);
    // A long text is laid out once, in its own face, unless that is slow to come or does not come at all.
    const face = loadReadingFace(adapter.window, adapter.stream.text).catch(() => undefined);
    const opened = Promise.race([face, new Promise((later) => setTimeout(later, FACE_WAITS))]).then(() =>
      setPage({ adapter, painter: new Painter(adapter) }),
    );
    void Promise.all([face, opened]).then(() => setLayout((n) => n + 1));
  }, []);

  // Before anything of it is drawn: a long text is laid out once, and measured in the same go.
  useLayoutEffect(() => {
    if (!page) return;
    const tokens = tokensOf(type?.paper);
    dress.current?.apply({ view, kind, unit, ...(type ? { type } : {}) }, tokens);
    page.painter.dress(tokens, isOverPicture({ view, kind }));
    page.adapter.setScale(scale);
    page.adapter.setMainOnly(view === 'main');
    setLayout((n) => n + 1);
  }, [page, view, kind, unit, type, scale, theme]);
  const face = type?.face;
  useEffect(() => {
    if (page && face && face !== 'literata')
      void loadReadingFace(page.adapter.window, '', face).then(() => setLayout((n) => n + 1));
  }, [page, face]);

  useEffect(() => page && flushOnInput(page.adapter.document), [page]);
  useEffect(() => () => observer.current?.disconnect(), []);
  return { page, height: height * scale, layout, onLoad };
}

/** The tokens of a theme, whichever Avrelle itself has. */
function tokensOf(paper: Type['paper'] = 'as Avrelle'): CSSStyleDeclaration {
  if (paper === 'as Avrelle') return getComputedStyle(document.documentElement);
  let sample = document.querySelector<HTMLElement>(`[data-sample=${paper}]`);
  if (!sample) {
    sample = document.createElement('div');
    Object.assign(sample.dataset, { sample: paper, theme: paper });
    sample.hidden = true;
    document.body.append(sample);
  }
  return getComputedStyle(sample);
}
