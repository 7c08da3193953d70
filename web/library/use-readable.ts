import { useState } from 'react';
import { parseQuery } from '@avrelle/core/query';

/** A search as it is typed, and the last of it that could be read: while a fault is not mended, its answer stays. */
export function useReadable(typed: string): { readonly asked: string; readonly faulty: boolean } {
  const fits = parseQuery(typed).ok;
  const [good, setGood] = useState(fits ? typed : '');
  if (fits && typed !== good) setGood(typed);
  return { asked: fits ? typed : good, faulty: !fits };
}
