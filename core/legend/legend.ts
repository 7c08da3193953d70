/** How a kind is drawn, so that colour is never alone. */
export const LINES = ['solid', 'dashed', 'wavy', 'dotted', 'double', 'thick'] as const;
export type Line = (typeof LINES)[number] | 'hairline';

/** What it is coloured with, by the names of old colours. */
export const PIGMENTS = ['weld', 'verdigris', 'woad', 'orchil', 'madder', 'ochre', 'walnut', 'lichen'] as const;
export type Pigment = (typeof PIGMENTS)[number] | 'plain';

/** Names a kind within its Legend: a word for the starting kinds, a version 7 UUID for those people make. */
export type KindCode = string;

export interface Look {
  readonly pigment: Pigment;
  readonly line: Line;
}

export interface Kind extends Look {
  readonly code: KindCode;
  readonly name: string;
  readonly sign: string;
}

/** A kind for each digit. */
export const MOST_KINDS = 9;

/** The starting Legend, in the order of its digits 1 to 6. */
export const STARTING_LEGEND: readonly Kind[] = [
  { code: 'claim', name: 'Claim', pigment: 'weld', line: 'solid', sign: '§' },
  { code: 'evidence', name: 'Evidence', pigment: 'verdigris', line: 'dashed', sign: '∴' },
  { code: 'question', name: 'Question', pigment: 'woad', line: 'wavy', sign: '?' },
  { code: 'term', name: 'Term', pigment: 'orchil', line: 'dotted', sign: '¶' },
  { code: 'doubt', name: 'Doubt', pigment: 'madder', line: 'double', sign: '≠' },
  { code: 'keep', name: 'Keep', pigment: 'ochre', line: 'thick', sign: '◆' },
];

/**
 * A note that is no kind of highlight: a hairline under its words and the printer's dagger beside it. In every Legend,
 * and never changed.
 */
export const PLAIN_NOTE: Kind = { code: 'note', name: 'Note', pigment: 'plain', line: 'hairline', sign: '†' };

const STARTING: ReadonlyMap<string, Kind> = new Map([...STARTING_LEGEND, PLAIN_NOTE].map((kind) => [kind.code, kind]));

/** A kind everybody has from the start; undefined for one that somebody made. */
export const startingKind = (code: KindCode): Kind | undefined => STARTING.get(code);

/** What kinds are drawn by: kinds that look the same are painted together. */
export const lookName = ({ pigment, line }: Look): string => `${pigment}-${line}`;

/** Every look there can be. */
export const LOOKS: readonly Look[] = [
  ...PIGMENTS.flatMap((pigment) => LINES.map((line): Look => ({ pigment, line }))),
  PLAIN_NOTE,
];

/** The kinds with one at another place of their order; the same array where nothing moves. */
export function moveKind(kinds: readonly Kind[], from: number, to: number): readonly Kind[] {
  const kind = kinds[from];
  return kind && from !== to && to >= 0 && to < kinds.length ? kinds.toSpliced(from, 1).toSpliced(to, 0, kind) : kinds;
}

/** A look that no kind of the Legend has yet; one they have, where all are taken. */
export function freeLook(kinds: readonly Kind[]): Look {
  const taken = (what: 'pigment' | 'line', value: string): number => kinds.filter((k) => k[what] === value).length;
  const rarest = <T extends string>(what: 'pigment' | 'line', of: readonly T[]): T =>
    of.reduce((best, value) => (taken(what, value) < taken(what, best) ? value : best));
  return { pigment: rarest('pigment', PIGMENTS), line: rarest('line', LINES) };
}
