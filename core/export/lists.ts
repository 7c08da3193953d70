/** A source as lists of sources name it. */
export interface Listed {
  readonly title: string;
  readonly address: string | null;
  /** RFC 3339. */
  readonly keptAt: string;
  readonly tags: readonly string[];
  readonly description: string;
}

const escaped = (text: string): string =>
  text
    .replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!)
    // What XML 1.0 allows in no form.
    // eslint-disable-next-line no-control-regex
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');

/** A bookmarks file as browsers read and write it (the Netscape form; common practice). What has no address is left out. */
export function bookmarksFile(title: string, sources: readonly Listed[]): string {
  const items = sources
    .filter((s) => s.address !== null)
    .map(
      ({ title: name, address, keptAt, tags, description }) =>
        `    <DT><A HREF="${escaped(address!)}" ADD_DATE="${Math.floor(Date.parse(keptAt) / 1000)}"${tags.length ? ` TAGS="${escaped(tags.join(','))}"` : ''}>${escaped(name)}</A>${description ? `\n    <DD>${escaped(description.replace(/\s+/g, ' '))}` : ''}`,
    );
  return `<!DOCTYPE NETSCAPE-Bookmark-file-1>\n<META HTTP-EQUIV="Content-Type" CONTENT="text/html; charset=UTF-8">\n<TITLE>${escaped(title)}</TITLE>\n<H1>${escaped(title)}</H1>\n<DL><p>\n${items.join('\n')}\n</DL><p>\n`;
}

/** Feeds as OPML 2.0, read by whatever reads feeds. */
export function opmlFile(
  title: string,
  feeds: readonly { readonly title: string; readonly address: string }[],
  now: string,
): string {
  const outlines = feeds.map(
    (f) =>
      `    <outline type="rss" text="${escaped(f.title)}" title="${escaped(f.title)}" xmlUrl="${escaped(f.address)}"/>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<opml version="2.0">\n  <head>\n    <title>${escaped(title)}</title>\n    <dateCreated>${new Date(now).toUTCString()}</dateCreated>\n  </head>\n  <body>\n${outlines.join('\n')}\n  </body>\n</opml>\n`;
}
