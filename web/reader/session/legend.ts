import { createContext, useContext, useMemo } from 'react';
import { STARTING_LEGEND, PLAIN_NOTE, startingKind, type Kind, type KindCode } from '@avrelle/core/legend';
import type { OwnedLegend, ClassId, LegendOwnerId } from '@avrelle/core/wire';
import { useLegends } from '../../data/queries';

/** The kinds one marks with now, by their digits. */
export interface Legend {
  readonly kinds: readonly Kind[];
  /** Whose it is: a class's name, or null for my own. */
  readonly className: string | null;
  readonly ownerId: LegendOwnerId | undefined;
  /** A kind of any of my Legends. */
  find(code: KindCode): Kind | undefined;
}

const LegendContext = createContext<Legend>({
  kinds: STARTING_LEGEND,
  className: null,
  ownerId: undefined,
  find: startingKind,
});
export const LegendProvider = LegendContext.Provider;
export const useLegend = (): Legend => useContext(LegendContext);

/** My own Legend; where I write for a class that brings its own, that one. */
export function useChosenLegend(
  classIds: readonly ClassId[],
  preferMine: boolean,
): Legend & { readonly other: OwnedLegend | undefined } {
  const { data } = useLegends();
  return useMemo(() => {
    const brought = data?.classes.find((k) => classIds.some((id) => id === k.ownerId) && k.kinds.length > 0);
    const chosen = preferMine ? data?.mine : (brought ?? data?.mine);
    const all = [...(data ? [data.mine, ...data.classes].flatMap((k) => k.kinds) : []), PLAIN_NOTE];
    return {
      ...(chosen ? { kinds: chosen.kinds, className: chosen.className, ownerId: chosen.ownerId } : NOT_YET_KNOWN),
      other: brought && (chosen === brought ? data?.mine : brought),
      find: (code) => all.find((k) => k.code === code) ?? startingKind(code),
    };
  }, [data, classIds, preferMine]);
}

/** Until the server has told: the starting one. */
const NOT_YET_KNOWN = { kinds: STARTING_LEGEND, className: null, ownerId: undefined };
