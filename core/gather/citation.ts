/** What a reference is made of. */
export interface Cited {
  readonly title: string;
  /** Names parted by `; `. */
  readonly author: string;
  readonly site: string;
  /** RFC 3339, or only its year or month. */
  readonly publishedAt: string | null;
  readonly doi: string;
  readonly address: string | null;
  readonly keptAt: string;
}

/** A short reference in author–date order (common practice): who, when, what, where, and when it was kept. */
export function citation({ title, author, site, publishedAt, doi, address, keptAt }: Cited): string {
  const names = author.split(/\s*;\s*/).filter(Boolean);
  const who = together(names);
  const year = publishedAt?.slice(0, 4) ?? 'undated';
  const where = doi ? `https://doi.org/${doi}` : (address ?? '');
  const ended = /[.?!]$/.test(title) ? title : `${title}.`;
  const front = who ? `${who} (${year}). ${ended}` : `${ended} (${year}).`;
  return [front, site && `${site}.`, where && `${where}${doi ? '' : ` (kept ${keptAt.slice(0, 10)})`}`]
    .filter(Boolean)
    .join(' ');
}

function together(names: readonly string[]): string {
  if (names.length > 3) return `${names[0]} and others`;
  if (names.length > 1) return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
  return names[0] ?? '';
}
