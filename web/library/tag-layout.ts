import {
  forceCollide,
  forceLink,
  forceManyBody,
  forceSimulation,
  forceX,
  forceY,
  type SimulationNodeDatum,
} from 'd3-force';
import type { RelatedTag, TagPair } from '@avrelle/core/wire';

export interface Spot extends SimulationNodeDatum {
  readonly tag: string;
  readonly together: number;
  x: number;
  y: number;
}
export interface Tie {
  readonly from: Spot;
  readonly to: Spot;
  readonly together: number;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

const TICKS = 240;
const APART = 26;

/** Where tags stand on a picture of `width` by `height`: nearer, the more often two stand together. The same tags always stand alike. */
export function layTags(
  here: string,
  related: readonly RelatedTag[],
  pairs: readonly TagPair[],
  { width, height }: Size,
): { readonly spots: readonly Spot[]; readonly ties: readonly Tie[] } {
  const most = Math.max(1, ...related.map((r) => r.together));
  const centre: Spot = { tag: here, together: most, x: width / 2, y: height / 2, fx: width / 2, fy: height / 2 };
  const spots = [
    centre,
    ...related.map(({ tag, together }, n): Spot => ({
      tag,
      together,
      x: width / 2 + Math.cos(n * 2.4) * 90,
      y: height / 2 + Math.sin(n * 2.4) * 60,
    })),
  ];
  const of = new Map(spots.map((s) => [s.tag, s]));
  const ties = [
    ...related.map(({ tag, together }): Tie => ({ from: centre, to: of.get(tag)!, together })),
    ...pairs.flatMap(({ a, b, together }): Tie[] => {
      const from = of.get(a);
      const to = of.get(b);
      return from && to ? [{ from, to, together }] : [];
    }),
  ];
  const length = (tie: { together: number }): number => 90 + 110 * (1 - tie.together / most);
  forceSimulation(spots)
    .stop()
    .force(
      'ties',
      forceLink(ties.map(({ from, to, together }) => ({ source: from, target: to, together })))
        .distance(length)
        .strength(0.25),
    )
    .force('apart', forceManyBody().strength(-620))
    .force(
      'words',
      forceCollide<Spot>((s) => Math.max(APART, s.tag.length * 4 + 8)),
    )
    .force('x', forceX(width / 2).strength(0.03))
    .force('y', forceY(height / 2).strength(0.16))
    .tick(TICKS);
  for (const spot of spots) {
    spot.x = Math.min(width - 50, Math.max(50, spot.x));
    spot.y = Math.min(height - 14, Math.max(18, spot.y));
  }
  return { spots, ties };
}
