/** At most so many are brought in at once. */
const MOST = 200;

/** Addresses of the feeds an OPML 2.0 file names, each once. */
export function feedsIn(opml: string): readonly string[] {
  const document = new DOMParser().parseFromString(opml, 'text/xml');
  return [
    ...new Set(
      [...document.querySelectorAll('outline')].flatMap(
        (o) => o.getAttribute('xmlUrl') ?? o.getAttribute('xmlurl') ?? [],
      ),
    ),
  ]
    .filter((a) => /^https?:/i.test(a))
    .slice(0, MOST);
}
