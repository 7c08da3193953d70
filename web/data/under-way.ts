import type { Annotation } from '@avrelle/core/wire';

/** An annotation as it is with a change that the server has not answered yet; nothing where that takes it away. */
type Change = (annotation: Annotation) => Annotation | undefined;

const changes = new Map<string, readonly Change[]>();

/** Shows a change of an annotation until `end` is called, whatever older state the server tells of meanwhile. */
export function underWay(id: string, change: Change): { end(): void } {
  changes.set(id, [...(changes.get(id) ?? []), change]);
  return {
    end: () => {
      const left = (changes.get(id) ?? []).filter((other) => other !== change);
      if (left.length > 0) changes.set(id, left);
      else changes.delete(id);
    },
  };
}

/** What the server told, with the own changes that are on their way to it. */
export const withOwn = (annotation: Annotation): Annotation | undefined =>
  (changes.get(annotation.id) ?? []).reduce<Annotation | undefined>((now, change) => now && change(now), annotation);
