import { readTree } from '@avrelle/core/text';
import { lightTree } from '../server/ingest/light-tree';
import { textToHtml } from '../server/ingest/documents';
import { figure, prose, seeded, time, type Bench } from './measure';

/** Reading the stream of a long page, on the server's tree. */
export const stream: Bench = async () => {
  const tree = lightTree(textToHtml(prose(500_000, seeded(1)), 'long'));
  readTree(tree);
  return [figure('read the text stream of 500,000 characters', await time(() => readTree(tree)), 'ms')];
};
