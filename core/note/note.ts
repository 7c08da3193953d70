/**
 * What a note can lead to inside Avrelle. In its Markdown such a link has an address of the scheme `avrelle`:
 * `[words](avrelle:annotation/ID)`, `[@Name](avrelle:person/ID)`, `![what it shows](avrelle:picture/SHA-256)`.
 */
export const LINK_TYPES = ['annotation', 'source', 'person', 'picture'] as const;
export type LinkType = (typeof LINK_TYPES)[number];

export interface NoteLink {
  readonly type: LinkType;
  /** A version 7 UUID; of a picture the SHA-256 of its bytes, hex. */
  readonly id: string;
}

const ADDRESS = /^avrelle:(annotation|source|person|picture)\/([0-9a-f-]{36}|[0-9a-f]{64})$/;

export const linkAddress = ({ type, id }: NoteLink): string => `avrelle:${type}/${id}`;

export function parseLinkAddress(address: string): NoteLink | undefined {
  const [, type, id] = ADDRESS.exec(address) ?? [];
  return type && id ? { type: type as LinkType, id } : undefined;
}

/** Everything a note leads to, each once, in the order of the text. */
export function linksIn(note: string): readonly NoteLink[] {
  const found = new Map<string, NoteLink>();
  for (const [, address] of note.matchAll(/\]\(<?(avrelle:[^)>\s]+)>?(?:\s+"[^"]*")?\)/g)) {
    const link = parseLinkAddress(address!);
    if (link) found.set(address!, link);
  }
  return [...found.values()];
}

/** A note for readers outside Avrelle: links within it become addresses of this installation. `origin` as `https://host`. */
export const outward = (note: string, origin: string): string =>
  note.replace(
    /\]\(<?avrelle:(annotation|source|person|picture)\/([0-9a-f-]+)>?/g,
    (_, type: string, id: string) => `](${origin}/${type === 'picture' ? 'pictures' : `to/${type}`}/${id}`,
  );

/** `#tags` in the words of a note, in lower case, each once; not in what is code or an address. */
export function tagsIn(words: string): readonly string[] {
  return [
    ...new Set(
      [...words.matchAll(/(?:^|[\s(])#([\p{L}\p{M}\p{N}_/-]*[\p{L}][\p{L}\p{M}\p{N}_/-]*)/gu)].map((m) =>
        m[1]!.toLowerCase().slice(0, 60),
      ),
    ),
  ];
}
