/** Parameters that only say where a reader came from (common practice). */
const TRACKING = /^(utm_.*|fbclid|gclid|mc_[ce]id|ref_src|igshid)$/i;

/** The address by which a page is recognised as one kept before: no fragment, tracking, `www.` or trailing slash. */
export function canonicalAddress(address: string): string {
  const url = new URL(address);
  url.hash = '';
  url.protocol = 'https:';
  url.hostname = url.hostname.replace(/^www\./, '');
  for (const name of [...url.searchParams.keys()]) if (TRACKING.test(name)) url.searchParams.delete(name);
  url.searchParams.sort();
  return url.href.replace(/\/(?=$|\?)/, '');
}
