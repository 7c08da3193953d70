import { useState } from 'react';
import type { PersonId } from '@avrelle/core/wire';

interface Stored<Values> {
  readonly values: Values;
  readonly upon: number | null;
}

/** What is typed into a form, on this computer until it is sent: a tab that is closed takes nothing with it. */
export interface Kept<Values> {
  /** What was typed in an earlier visit. */
  readonly begun: Values | undefined;
  /** The version of what it changes; null where that is new. What was typed before goes on from the version of then. */
  readonly upon: number | null;
  /** What is typed from now on changes another version. */
  goOn(upon: number): void;
  write(values: Values): void;
  drop(): void;
}

/** Nothing throws where the browser stores nothing; what is typed then lasts as long as the page. */
export function keptForm<Values>(personId: PersonId, name: string, now: number | null = null): Kept<Values> {
  const key = `avrelle.form/${personId}/${name}`;
  const stored = read<Values>(key);
  let newest = now;
  let upon = stored ? stored.upon : now;
  return {
    begun: stored?.values,
    get upon() {
      return upon;
    },
    goOn: (version) => {
      newest = version;
      upon = version;
    },
    write: (values) => {
      try {
        localStorage.setItem(key, JSON.stringify({ values, upon } satisfies Stored<Values>));
      } catch {
        /* full, or not allowed */
      }
    },
    drop: () => {
      upon = newest;
      localStorage.removeItem(key);
    },
  };
}

function read<Values>(key: string): Stored<Values> | undefined {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? 'null') as Stored<Values> | null) ?? undefined;
  } catch {
    return undefined;
  }
}

export const useKept = <Values>(personId: PersonId, name: string, now: number | null = null): Kept<Values> =>
  useState(() => keptForm<Values>(personId, name, now))[0];
