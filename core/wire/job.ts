import type { BatchId, SourceId, JobId } from './ids';
import type { Problem } from './problem';
import type { KeptBefore } from './source';

export type JobState = 'queued' | 'running' | 'done' | 'failed';

export interface Job {
  readonly id: JobId;
  readonly state: JobState;
  /** What is being done now, in words. */
  readonly step: string;
  /** 0 to 1. */
  readonly progress: number;
  readonly sourceId: SourceId | null;
  /** True where the page had been kept before and was only found again. */
  readonly already: boolean;
  readonly error: Problem | null;
  readonly label: string;
  /** The list it is one of. */
  readonly batchId: BatchId | null;
  /** True where it was fetched to be looked at: its draft has the job's id. */
  readonly look: boolean;
  /** What had been kept before, where `already`. */
  readonly before: KeptBefore | null;
}
