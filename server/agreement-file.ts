import fs from 'node:fs/promises';
import type { Value, Values } from '@avrelle/core/class';

/**
 * What readers made of units, from a JSON file `{"units": [[value or null per reader, …], …]}`: rows are units, columns
 * readers. Throws what is wrong with the file, and where.
 */
export async function readUnits(file: string): Promise<Values> {
  const words = await fs.readFile(file, 'utf8').catch((cause: NodeJS.ErrnoException) => {
    throw new Error(`${file} cannot be read (${cause.code}): check the path.`);
  });
  const units = unitsIn(parsed(words, file));
  if (!Array.isArray(units)) throw new Error(`${file} has no list "units": write {"units": [["claim", null], …]}.`);
  return units.map((row: unknown, n): readonly (Value | null)[] => {
    if (!Array.isArray(row)) throw new Error(`Unit ${n + 1} of ${file} is no list: write a value or null per reader.`);
    const wrong = row.findIndex((value) => !isValue(value));
    if (wrong >= 0)
      throw new Error(
        `Unit ${n + 1} of ${file}, reader ${wrong + 1}: a value is a word, a number, true, false or null.`,
      );
    return row as (Value | null)[];
  });
}

function parsed(words: string, file: string): unknown {
  try {
    return JSON.parse(words.replace(/^\uFEFF/, ''));
  } catch (error) {
    throw new Error(`${file} is not JSON: ${(error as Error).message}.`, { cause: error });
  }
}

const unitsIn = (given: unknown): unknown =>
  typeof given === 'object' && given !== null && 'units' in given ? given.units : undefined;

const isValue = (value: unknown): boolean => value === null || ['string', 'number', 'boolean'].includes(typeof value);
