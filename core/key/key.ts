/** How a kind is drawn, so that colour is never alone. */
export type Line = 'solid' | 'dashed' | 'wavy' | 'dotted' | 'double' | 'thick' | 'hairline';
export type Pigment = 'weld' | 'verdigris' | 'woad' | 'orchil' | 'madder' | 'ochre' | 'plain';

export interface Kind {
  readonly code: KindCode;
  readonly name: string;
  readonly pigment: Pigment;
  readonly line: Line;
  readonly sign: string;
}

export const KIND_CODES = ['claim', 'evidence', 'question', 'term', 'doubt', 'keep', 'note'] as const;
export type KindCode = (typeof KIND_CODES)[number];

/** The starting Key, in the order of its digits 1 to 6. */
export const KEY: readonly Kind[] = [
  { code: 'claim', name: 'Claim', pigment: 'weld', line: 'solid', sign: '§' },
  { code: 'evidence', name: 'Evidence', pigment: 'verdigris', line: 'dashed', sign: '∴' },
  { code: 'question', name: 'Question', pigment: 'woad', line: 'wavy', sign: '?' },
  { code: 'term', name: 'Term', pigment: 'orchil', line: 'dotted', sign: '¶' },
  { code: 'doubt', name: 'Doubt', pigment: 'madder', line: 'double', sign: '≠' },
  { code: 'keep', name: 'Keep', pigment: 'ochre', line: 'thick', sign: '◆' },
];

/** A note that is no kind of highlight: a hairline under its words and the printer's dagger beside it. */
export const PLAIN_NOTE: Kind = { code: 'note', name: 'Note', pigment: 'plain', line: 'hairline', sign: '†' };

const BY_CODE: ReadonlyMap<string, Kind> = new Map([...KEY, PLAIN_NOTE].map((kind) => [kind.code, kind]));

export const kindOf = (code: string): Kind => BY_CODE.get(code) ?? PLAIN_NOTE;
