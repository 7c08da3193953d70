/** Letters and digits that are not taken for each other when read from a board. */
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/** Six signs, about 30 bits: unguessable within the rate limit. `random` gives bytes. */
export function joinCode(random: (bytes: number) => Uint8Array): string {
  return [...random(6)].map((byte) => SIGNS[byte % SIGNS.length]).join('');
}
