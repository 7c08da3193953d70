import { describe, indexText, locateAll } from '@avrelle/core/anchor';
import { range, readTree } from '@avrelle/core/text';
import { parseHtml } from '../server/ingest/parse-html';
import { textToHtml } from '../server/ingest/documents';
import { atMost, figure, prose, seeded, time, type Bench } from './measure';

/** Reading the stream of a long page, on the server's tree. */
export const stream: Bench = async () => {
  const document = parseHtml(textToHtml(prose(500_000, seeded(1)), 'long'), 'http://x.test/');
  readTree(document.documentElement);
  return [figure('read the text stream of 500,000 characters', await time(() => readTree(document.documentElement)), 'ms')];
};

/** Exact and nearest placement only; the fuzzy locator has a bar of its own. */
export const locate: Bench = async () => {
  const random = seeded(2), before = prose(500_000, random).replaceAll('\n\n', '\n'), index = indexText(before);
  const anchors = Array.from({ length: 10_000 }, () => {
    const start = Math.floor(random() * (before.length - 200));
    return describe(index, range(start, start + 20 + Math.floor(random() * 120)));
  });
  const same = await time(() => locateAll(indexText(before), anchors));
  const shifted = await time(() => locateAll(indexText(`One sentence more. ${before}`), anchors));
  return [atMost('locate 10,000 anchors in an unchanged text of 500,000 characters', same, 'ms', 300), figure('the same after a sentence was put in front (exact quotations only)', shifted, 'ms')];
};
