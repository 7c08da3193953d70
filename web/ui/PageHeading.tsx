import { useEffect, useRef, type ComponentProps } from 'react';
import { useLocation } from 'react-router';

/** What skip links lead to. */
export const PAGE_HEADING = 'page-heading';

/** The page whose heading was shown last. The first one is read out by the browser itself. */
let shown: string | undefined;

interface PageHeadingProps extends ComponentProps<'h1'> {
  /** Of the window; the heading's own words where nothing is said. */
  readonly window?: string;
}

/** Where one writes, and what stands on the page itself, keep the focus. */
const keepsFocus = (active: Element | null, heading: HTMLElement | null): boolean =>
  active instanceof HTMLInputElement ||
  active instanceof HTMLTextAreaElement ||
  !!heading?.closest('main')?.contains(active);

/** The heading of a page: names the window, and takes the focus when one has come from another page. */
export function PageHeading({ window: name, className = 'text-[23px]', children, ...rest }: PageHeadingProps) {
  const heading = useRef<HTMLHeadingElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    const active = document.activeElement;
    const came = shown !== undefined && (shown !== pathname || active === document.body);
    shown = pathname;
    if (came && !keepsFocus(active, heading.current)) heading.current?.focus({ preventScroll: true });
  }, [pathname]);
  const title = name ?? (typeof children === 'string' ? children : undefined);
  return (
    <>
      <title>{title ? `${title} · Avrelle` : 'Avrelle'}</title>
      <h1 ref={heading} id={PAGE_HEADING} tabIndex={-1} className={`outline-offset-4 ${className}`} {...rest}>
        {children}
      </h1>
    </>
  );
}
