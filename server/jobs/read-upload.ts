import { createWriteStream } from 'node:fs';
import fs from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { FastifyRequest } from 'fastify';
import { AppError } from '../errors';

/** Most megabytes of one file. */
const MOST_MB = 100;

interface Sent {
  readonly name: string;
  /** Where it lies on the disk until the upload has been dealt with. */
  readonly path: string;
  /** In bytes. */
  readonly size: number;
}

export interface Upload {
  readonly file: Sent | undefined;
  /** The words of a recording: a second file that ends in .vtt or .srt, or the field `transcript`. */
  readonly transcript: Sent | undefined;
  readonly fields: Readonly<Record<string, string>>;
}

/**
 * Reads a multipart upload to the disk: one file, beside a recording its transcript, and fields; no part of a file is
 * held in memory for longer than it takes to write it. The files are gone once `use` has ended. Throws
 * `file_too_large`, `no_file`.
 */
export async function withUpload<T>(request: FastifyRequest, use: (upload: Upload) => Promise<T>): Promise<T> {
  if (!request.isMultipart()) throw new AppError('no_file', {}, { field: 'file' });
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), 'avrelle-upload-'));
  try {
    return await use(await read(request, folder).catch(explained));
  } finally {
    await fs.rm(folder, { recursive: true, force: true });
  }
}

/** What the parser says of a body that is no upload, or breaks off. */
function explained(error: unknown): never {
  const { code, statusCode } = error as { code?: string; statusCode?: number };
  if (error instanceof AppError || code !== undefined || statusCode !== undefined) throw error;
  throw new AppError(
    'invalid',
    { message: 'The upload broke off before its end, or is none. Choose the file and send it again.' },
    { field: 'file' },
  );
}

async function read(request: FastifyRequest, folder: string): Promise<Upload> {
  const fields: Record<string, string> = {};
  let file: Sent | undefined;
  let transcript: Sent | undefined;
  let count = 0;
  for await (const part of request.parts({
    limits: { fileSize: MOST_MB * 1024 * 1024, files: 2, fieldSize: 100_000, fields: 20, parts: 25 },
  })) {
    if (part.type === 'field') {
      fields[part.fieldname] = String(part.value);
      continue;
    }
    const at = path.join(folder, String((count += 1)));
    await pipeline(part.file, createWriteStream(at));
    if (part.file.truncated) throw new AppError('file_too_large', { limit: MOST_MB }, { field: 'file' });
    const sent = { name: part.filename, path: at, size: part.file.bytesRead };
    if (part.fieldname === 'transcript' || /\.(vtt|srt)$/i.test(part.filename)) transcript = sent;
    else file = sent;
  }
  return { file, transcript, fields };
}
