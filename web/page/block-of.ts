import type { Block } from '@avrelle/core/text';
import { pathTo } from './element-path';
import type { PageAdapter } from './page-frame';

/** The block of text nearest to a picture or page: its own first one, else the last before it. */
export function blockOf({ stream }: PageAdapter, element: Element): Block | undefined {
  const home = pathTo(element);
  const figure = element.closest('figure');
  const around = figure ? pathTo(figure) : home;
  const within = stream.outline.find(
    (block) => !block.aside && (isBelow(block.path, around) || isBelow(block.path, home)),
  );
  return within ?? stream.outline.findLast((block) => comparePaths(block.path, home) < 0) ?? stream.outline[0];
}

const isBelow = (path: string, home: string): boolean => path === home || path.startsWith(`${home}/`);

/** Document order. */
function comparePaths(a: string, b: string): number {
  const [left, right] = [a.split('/').map(Number), b.split('/').map(Number)];
  for (let n = 0; n < Math.min(left.length, right.length); n++) if (left[n] !== right[n]) return left[n]! - right[n]!;
  return left.length - right.length;
}
