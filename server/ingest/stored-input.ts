import type { Ask } from './ingester';
import type { IngestInput } from './ingest';

export interface JobFiles {
  /** Hash of the file. */
  readonly file: string;
  /** The words of a recording. */
  readonly transcript?: { readonly name: string; readonly hash: string } | undefined;
}

/** What is to be taken in, with its bytes at hand. */
export function resolveInput(
  ask: Exclude<Ask, { type: 'address' }>,
  read: (hash: string) => Buffer,
): Exclude<IngestInput, { type: 'address' }> {
  if (ask.type === 'shape') {
    const { stored } = ask.ingested;
    return stored ? { ...ask, ingested: { ...ask.ingested, snapshot: read(stored.snapshot).toString('utf8') } } : ask;
  }
  const {
    name,
    files: { file, transcript },
    password,
    remote,
    encoding,
  } = ask;
  return {
    type: 'file',
    name,
    bytes: read(file),
    password,
    remote,
    encoding,
    transcript: transcript && { name: transcript.name, bytes: read(transcript.hash) },
  };
}
