import { useCallback, useEffect, useRef, useState } from 'react';
import { useTheme } from '../theme/use-theme';
import { openPage, type PageAdapter } from './page-frame';
import { loadReadingFace, PageDress, type View } from './page-style';
import { Painter } from './painter';

export interface OpenPage {
  readonly adapter: PageAdapter;
  readonly painter: Painter;
}

/** Opens the document in a frame once it has loaded, dresses it, and follows its height. `layout` counts its layouts. */
export function usePage(view: View) {
  const theme = useTheme();
  const [page, setPage] = useState<OpenPage>();
  const [height, setHeight] = useState(400);
  const [layout, setLayout] = useState(0);
  const dress = useRef<PageDress>(undefined);
  const observer = useRef<ResizeObserver>(undefined);

  const onLoad = useCallback((frame: HTMLIFrameElement) => {
    const adapter = openPage(frame), root = adapter.document.documentElement;
    dress.current = new PageDress(adapter.document, adapter.window);
    observer.current?.disconnect();
    observer.current = new ResizeObserver(() => {
      setHeight(Math.ceil(Math.max(root.getBoundingClientRect().height, adapter.document.body.scrollHeight)));
      setLayout((n) => n + 1);
    });
    observer.current.observe(root);
    observer.current.observe(adapter.document.body);
    void loadReadingFace(adapter.window, adapter.stream.text).then(() => setLayout((n) => n + 1));
    setPage({ adapter, painter: new Painter(adapter) });
  }, []);

  useEffect(() => {
    if (!page) return;
    const tokens = getComputedStyle(document.documentElement);
    dress.current?.apply(view, tokens);
    page.painter.dress(tokens);
    setLayout((n) => n + 1);
  }, [page, view, theme]);

  useEffect(() => () => observer.current?.disconnect(), []);
  return { page, height, layout, onLoad };
}
