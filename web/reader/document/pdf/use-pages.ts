import { useEffect, useState } from 'react';
import type { OpenPage } from '../use-page';

/** Room beside a page, in pixels. */
const BESIDE = 48;
const SMALLEST = 0.4;
const LARGEST = 4;
export const ZOOMS = [0.5, 0.75, 1, 1.25, 1.5, 2, 3] as const;

/** Width of the widest page, in points. */
export const pageWidth = (document: Document): number =>
  Math.max(
    1,
    ...[...document.querySelectorAll<HTMLElement>('section[data-avrelle-page]')].map((s) =>
      Number(s.style.getPropertyValue('--w')),
    ),
  );

/** One point in pixels, so that the widest page fills `room` at zoom 1. */
export const unitFor = (room: number, points: number, zoom: number): number =>
  Math.round(Math.min(LARGEST, Math.max(SMALLEST, ((room - BESIDE) / points) * zoom)) * 1000) / 1000;

/**
 * The words of a PDF's page are as wide as the file sets them: measured where they are about to be seen, as only the
 * browser knows how wide the face at hand runs. Only their style is touched.
 */
export function useFittedWords(page: OpenPage | undefined, unit: number, on: boolean): void {
  const [fitted] = useState(() => new WeakMap<Element, number>());
  useEffect(() => {
    if (!page || !on) return;
    const { document, window } = page.adapter;
    const observer = new window.IntersectionObserver(
      (entries) => {
        for (const { isIntersecting, target } of entries)
          if (isIntersecting && fitted.get(target) !== unit) {
            fitted.set(target, unit);
            fitWords(target);
          }
      },
      { rootMargin: '100% 0px' },
    );
    for (const section of document.querySelectorAll('section[data-avrelle-page]')) observer.observe(section);
    return () => observer.disconnect();
  }, [page, unit, on, fitted]);
}

/** All widths are read before any is written. */
function fitWords(section: Element): void {
  const spans = [...section.querySelectorAll<HTMLElement>('span[style]')];
  const unit = Number.parseFloat(section.ownerDocument.defaultView!.getComputedStyle(section).getPropertyValue('--u'));
  const widths = spans.map((span) => span.offsetWidth);
  spans.forEach((span, n) => {
    const wanted = Number(span.style.getPropertyValue('--l')) * unit;
    if (widths[n]! > 0 && wanted > 0)
      span.style.transform = `scaleX(${Math.round((wanted / widths[n]!) * 1000) / 1000})`;
  });
}
