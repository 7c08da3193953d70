import type { Locator } from './stream';
import type { TextNodeLike } from './tree';

/** Set by the server on what it makes of pages, chapters and cues; part of the snapshot, so both sides read it alike. */
export const LOCATOR_ATTRIBUTES = {
  page: 'data-avrelle-page',
  label: 'data-avrelle-label',
  file: 'data-avrelle-file',
  from: 'data-avrelle-from',
  to: 'data-avrelle-to',
} as const;

const { page, label, file, from, to } = LOCATOR_ATTRIBUTES;

/** The locator an element sets for all that stands in it, if it sets one. */
export function readLocator(element: TextNodeLike): Locator | undefined {
  const of = (name: string): string | null => element.getAttribute?.(name) ?? null;
  const number = of(page);
  const start = of(from);
  const chapter = of(file);
  if (number !== null) return { page: Number(number), label: of(label) ?? number };
  if (start !== null) return { from: Number(start), to: Number(of(to) ?? start) };
  return chapter === null ? undefined : { file: chapter };
}

/** How a place is called in a list or a reference: `p. iv`, `1:05`. Chapters are known by their headings, not their files. */
export function placeName(locator: Locator | undefined): string {
  if (!locator || 'file' in locator) return '';
  return 'page' in locator ? `p. ${locator.label}` : clockTime(locator.from);
}

/** Seconds as a clock shows them: `0:07`, `12:30`, `1:02:03`. */
export function clockTime(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor(whole / 60) % 60;
  const two = (n: number): string => String(n).padStart(2, '0');
  return hours > 0 ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}
