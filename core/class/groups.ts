/**
 * Deals people into groups at random, so that no group has two more than another. `random` gives numbers from 0 to
 * below 1; each order is as likely as any other (Fisher and Yates 1938, as Durstenfeld 1964 has it; from memory).
 */
export function dealt<T>(people: readonly T[], groups: number, random: () => number): readonly (readonly T[])[] {
  const order = [...people];
  for (let last = order.length - 1; last > 0; last--) {
    const at = Math.floor(random() * (last + 1));
    [order[last], order[at]] = [order[at]!, order[last]!];
  }
  return Array.from({ length: groups }, (_, n) => order.filter((_one, i) => i % groups === n));
}
