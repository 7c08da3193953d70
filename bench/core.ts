import { readTree } from '@avrelle/core/text';
import { parseHtml } from '../server/ingest/parse-html';
import { textToHtml } from '../server/ingest/documents';
import { figure, prose, seeded, time, type Bench } from './measure';

/** Reading the stream of a long page, on the server's tree. */
export const stream: Bench = async () => {
  const document = parseHtml(textToHtml(prose(500_000, seeded(1)), 'long'), 'http://x.test/');
  readTree(document.documentElement);
  return [
    figure('read the text stream of 500,000 characters', await time(() => readTree(document.documentElement)), 'ms'),
  ];
};
