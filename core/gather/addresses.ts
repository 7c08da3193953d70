/** http and https addresses in a text, each once, in order: one a line, among words, in a table or in a bookmarks file. */
export function addressesIn(text: string): readonly string[] {
  const isBookmarks = /<a\s[^>]*href=/i.test(text);
  const found = isBookmarks
    ? [...text.matchAll(/<a\s[^>]*?href\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s>]+))/gi)].map((m) =>
        unescapeHtml(m[1] ?? m[2] ?? m[3] ?? ''),
      )
    : words(text);
  return [
    ...new Set(
      found.flatMap((given) => (/^https?:\/\/[^/\s]/i.test(given) && URL.canParse(given) ? [new URL(given).href] : [])),
    ),
  ];
}

/** Addresses end at white space, quotation marks and angle brackets; at a comma or semicolon where another field or sentence follows. */
const words = (text: string): string[] =>
  [...text.matchAll(/https?:\/\/[^\s"'<>]+/gi)].flatMap(([found]) => found.split(/[,;](?=https?:\/\/)/i)).map(trimmed);

/** RFC 4180 parts fields by commas, and some programs by semicolons; what follows one in an unquoted address is the next field. */
const trimmed = (address: string): string =>
  address
    .replace(/[,;].*$/s, (rest, at: number) =>
      address.slice(0, at).includes('?') && !/[,;]\S*\s*$/.test(rest) ? rest : '',
    )
    .replace(/[.:!)\]}]+$/, '');

const unescapeHtml = (text: string): string =>
  text
    .replace(/&amp;/g, '&')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .trim();
