import type { Encoding, DraftId, SourceId } from '@avrelle/core/wire';
import type { Choices } from '../ingest/ingested';

/** Where a job takes from. */
export type JobOrigin =
  | {
      readonly type: 'address';
      readonly address: string;
      readonly choices?: Choices;
      /** One of a list: what sites ask of programs is heeded. */
      readonly polite?: true;
      /** What the text is written in, as its reader says. */
      readonly encoding?: Encoding;
    }
  | {
      /** What the job was uploaded with. */
      readonly type: 'file';
      readonly name: string;
      /** The words of a recording. */
      readonly transcript?: { readonly name: string; readonly hash: string };
      /** Pictures of a letter may be fetched from strangers. */
      readonly remote?: true;
      readonly encoding?: Encoding;
    }
  /** A page that was looked at first. */
  | { readonly type: 'draft'; readonly draftId: DraftId; readonly choices: Choices };

/** What a job makes of it. */
export type JobTarget =
  | {
      readonly type: 'source';
      readonly sourceId: SourceId;
      readonly tags: readonly string[];
      readonly remark?: string;
      /** Kept although the same was kept before. */
      readonly apart?: true;
    }
  /** A new version of a source that is there. */
  | { readonly type: 'version'; readonly sourceId: SourceId }
  /** To be looked at first. */
  | { readonly type: 'draft' };

/** What a job is to do; stored with it as JSON. */
export interface JobInput {
  readonly origin: JobOrigin;
  readonly target: JobTarget;
  /** What its reader says of it; what it says itself gives way. */
  readonly overrides?: { readonly title?: string; readonly author?: string };
}

/** The very strings that `writeInput` made, and those of migrations. */
export const readInput = (json: string): JobInput => JSON.parse(json) as JobInput;
export const writeInput = (input: JobInput): string => JSON.stringify(input);
