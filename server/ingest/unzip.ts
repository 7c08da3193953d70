import yauzl from 'yauzl';
import { AppError } from '../errors';

/** What an archive may hold: entries, and bytes in all once unpacked. */
interface ArchiveLimits {
  readonly entries: number;
  readonly bytes: number;
}

export const ARCHIVE_LIMITS: ArchiveLimits = { entries: 5_000, bytes: 200 * 1024 * 1024 };

/**
 * Unpacks an archive in memory: path to bytes. Names that climb out of the folder, sizes that are not as declared, and
 * anything beyond the limits refuse the whole; nothing is unpacked beyond the limit.
 */
export function unzip(
  bytes: Uint8Array,
  name: string,
  limits: ArchiveLimits = ARCHIVE_LIMITS,
): Promise<ReadonlyMap<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  let total = 0;
  const tooLarge = (): AppError =>
    new AppError(
      'archive_too_large',
      { name, entries: limits.entries, limit: Math.round(limits.bytes / 1024 / 1024) },
      { field: 'file' },
    );
  return new Promise((resolve, reject) => {
    const fail = (error: Error): void =>
      reject(
        error instanceof AppError
          ? error
          : new AppError('bad_archive', { name, reason: error.message }, { field: 'file' }),
      );
    yauzl.fromBuffer(
      Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength),
      { lazyEntries: true, validateEntrySizes: true, strictFileNames: true },
      (error, zip) => {
        if (error) return fail(error);
        if (zip.entryCount > limits.entries) return fail(tooLarge());
        zip.on('error', fail);
        zip.on('end', () => resolve(files));
        zip.on('entry', (entry: yauzl.Entry) => {
          if (entry.fileName.endsWith('/')) return zip.readEntry();
          if (entry.generalPurposeBitFlag & 1) return fail(new AppError('locked_archive', { name }, { field: 'file' }));
          if (total + entry.uncompressedSize > limits.bytes) return fail(tooLarge());
          zip.openReadStream(entry, (broken, stream) => {
            if (broken) return fail(broken);
            const parts: Buffer[] = [];
            stream.on('data', (part: Buffer) => {
              total += part.byteLength;
              if (total > limits.bytes) stream.destroy(tooLarge());
              else parts.push(part);
            });
            stream.on('error', fail);
            stream.on('end', () => {
              files.set(entry.fileName, Buffer.concat(parts));
              zip.readEntry();
            });
          });
        });
        zip.readEntry();
      },
    );
  });
}
