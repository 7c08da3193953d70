import { parseLinkAddress } from '@avrelle/core/note';

/** Where the browser finds a picture of a note; undefined for one that lies elsewhere, which is not fetched. */
export function pictureAddress(written: string): string | undefined {
  const link = parseLinkAddress(written);
  return link?.type === 'picture' ? `/pictures/${link.id}` : undefined;
}

/** What a page of ours has under an address of a note, or an address of the web as it is; undefined for anything else. */
export function hrefOf(written: string): string | undefined {
  const link = parseLinkAddress(written);
  if (link) return link.type === 'person' ? undefined : `/to/${link.type}/${link.id}`;
  return /^(https?:|mailto:)/i.test(written) ? written : undefined;
}
