import { AssetCollector } from '../assets';
import { escapeHtml } from '../documents';
import { AppError } from '../../errors';
import type { Got } from '../got';
import { titleOf, type ReadyPage } from '../made';

/** A picture alone: its name above it, so that there is something to hold on to in the text. */
export function readPicture(got: Got, mediaType: string): ReadyPage {
  checkWhole(got, mediaType);
  const collector = new AssetCollector(undefined);
  const name = collector.add({ bytes: got.bytes, mediaType });
  if (!name)
    throw new AppError(
      'wrong_type',
      { address: got.name, type: mediaType },
      got.address === null ? { field: 'file' } : {},
    );
  const title = titleOf(got.name);
  return {
    form: 'ready',
    kind: 'image',
    collector,
    body: `<main><h1>${escapeHtml(title)}</h1><figure><img src="${name}" alt="${escapeHtml(title)}"></figure></main>`,
    meta: { title, lead: name },
    file: { bytes: got.bytes, mediaType },
  };
}

/** How pictures end: PNG (ISO 15948, 11.2.5), JPEG (ITU-T T.81, B.1.1.3), GIF89a (27), and the length that RIFF tells. Throws `cut_off`. */
function checkWhole({ bytes, name }: Got, mediaType: string): void {
  const end = Buffer.from(bytes.subarray(Math.max(0, bytes.byteLength - 65_536)));
  const riff = Buffer.from(bytes.subarray(0, 12));
  const whole: Readonly<Record<string, () => boolean>> = {
    'image/png': () => end.includes('IEND', 0, 'latin1'),
    'image/apng': () => end.includes('IEND', 0, 'latin1'),
    'image/jpeg': () => end.includes(Buffer.from([0xff, 0xd9])),
    'image/gif': () => end.includes(0x3b),
    'image/webp': () => riff.readUInt32LE(4) + 8 <= bytes.byteLength,
  };
  if (whole[mediaType]?.() === false)
    throw new AppError('cut_off', { name, reason: 'its last part is missing' }, { field: 'file' });
}
