import { createContext, useContext, useMemo } from 'react';
import { KEY, PLAIN_NOTE, startingKind, type Kind, type KindCode } from '@avrelle/core/key';
import type { OwnedKey, ClassId, KeyOwnerId } from '@avrelle/core/wire';
import { useKeys } from '../../data/queries';

/** The kinds one marks with now, by their digits. */
export interface Key {
  readonly kinds: readonly Kind[];
  /** Whose it is: a class's name, or null for my own. */
  readonly className: string | null;
  readonly ownerId: KeyOwnerId | undefined;
  /** A kind of any of my Keys. */
  find(code: KindCode): Kind | undefined;
}

const KeyContext = createContext<Key>({ kinds: KEY, className: null, ownerId: undefined, find: startingKind });
export const KeyProvider = KeyContext.Provider;
export const useKey = (): Key => useContext(KeyContext);

/** My own Key; where I write for a class that brings its own, that one. */
export function useChosenKey(
  classIds: readonly ClassId[],
  preferMine: boolean,
): Key & { readonly other: OwnedKey | undefined } {
  const { data } = useKeys();
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
const NOT_YET_KNOWN = { kinds: KEY, className: null, ownerId: undefined };
