import type { Encoding } from '@avrelle/core/wire';
import type { IngestInput } from './ingested';

export interface JobFiles {
  /** Hash of the file. */
  readonly file: string;
  /** The words of a recording. */
  readonly transcript?: { readonly name: string; readonly hash: string } | undefined;
}

/** What is to be taken in, as a job has it: files are named by their hashes in the database. */
export type Ask =
  | Extract<IngestInput, { type: 'address' }>
  | {
      readonly type: 'file';
      readonly name: string;
      readonly files: JobFiles;
      readonly password?: string | undefined;
      readonly remote?: boolean | undefined;
      /** What the text is written in, whatever it seems to be. */
      readonly encoding?: Encoding | undefined;
    }
  | Extract<IngestInput, { type: 'shape' }>;

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
