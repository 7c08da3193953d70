import { AssetCollector } from '../assets';
import { escapeHtml } from '../documents';
import { AppError } from '../../errors';
import { titleOf, type Got, type ReadyPage } from '../made';

/** A picture alone: its name above it, so that there is something to hold on to in the text. */
export function readPicture(got: Got, mediaType: string): ReadyPage {
  const collector = new AssetCollector(undefined), name = collector.add({ bytes: got.bytes, mediaType });
  if (!name) throw new AppError('wrong_type', { address: got.name, type: mediaType }, got.address === null ? { field: 'file' } : {});
  const title = titleOf(got.name);
  return { form: 'ready', kind: 'image', collector, body: `<main><h1>${escapeHtml(title)}</h1><figure><img src="${name}" alt="${escapeHtml(title)}"></figure></main>`, meta: { title, lead: name }, file: { bytes: got.bytes, mediaType } };
}
