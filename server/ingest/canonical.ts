/** Parameters that only say where a reader came from (common practice). */
const TRACKING =
  /^(utm_.*|(fb|g|dc|ms|yc|tt|wbra|gbra)(cl)?id|mc_[ce]id|_hs(enc|mi)|mkt_tok|oly_(enc|anon)_id|vero_id|ref_src|igshid|si|s_cid|cmpid|campaign_id)$/i;

/** The address by which a page is recognised as one kept before: no fragment, tracking, `www.`, index file or trailing slash. */
export function canonicalAddress(address: string): string {
  const url = new URL(address);
  url.hash = '';
  url.protocol = 'https:';
  url.hostname = url.hostname.replace(/^www\./, '');
  for (const name of [...url.searchParams.keys()]) if (TRACKING.test(name)) url.searchParams.delete(name);
  url.searchParams.sort();
  url.pathname = url.pathname.replace(/\/(index\.(html?|php))?$/i, '');
  return url.href.replace(/\/(?=$|\?)/, '');
}
