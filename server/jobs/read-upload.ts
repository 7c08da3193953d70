import type { FastifyRequest } from 'fastify';
import { AppError } from '../errors';

/** Most megabytes of one file. */
const MOST_MB = 100;

export interface Upload {
  readonly file: { readonly name: string; readonly bytes: Buffer } | undefined;
  /** The words of a recording: a second file that ends in .vtt or .srt, or the field `transcript`. */
  readonly transcript: { readonly name: string; readonly bytes: Buffer } | undefined;
  readonly fields: Readonly<Record<string, string>>;
}

/** Reads a multipart upload: one file, beside a recording its transcript, and fields. Throws `file_too_large`, `no_file`. */
export async function readUpload(request: FastifyRequest): Promise<Upload> {
  if (!request.isMultipart()) throw new AppError('no_file', {}, { field: 'file' });
  let file: Upload['file'], transcript: Upload['transcript'];
  const fields: Record<string, string> = {};
  for await (const part of request.parts({ limits: { fileSize: MOST_MB * 1024 * 1024, files: 2, fieldSize: 100_000 } })) {
    if (part.type === 'field') fields[part.fieldname] = String(part.value);
    else {
      const bytes = await part.toBuffer().catch(() => { throw new AppError('file_too_large', { limit: MOST_MB }, { field: 'file' }); });
      if (part.fieldname === 'transcript' || /\.(vtt|srt)$/i.test(part.filename)) transcript = { name: part.filename, bytes };
      else file = { name: part.filename, bytes };
    }
  }
  return { file, transcript, fields };
}
