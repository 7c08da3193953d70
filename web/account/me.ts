import { createContext, useContext } from 'react';
import type { Me } from '@avrelle/core/wire';

export const MeContext = createContext<Me | null>(null);

/** Who is signed in. Only inside places that ask for it. */
export function useMe(): Me {
  const me = useContext(MeContext);
  if (!me) throw new Error('useMe was called where nobody is signed in.');
  return me;
}
