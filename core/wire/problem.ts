/** RFC 9457 problem details. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly code: string;
  /** The field at fault, where one is. */
  readonly field?: string;
  /** On a stale write: what stands now, so that nothing written is lost. */
  readonly current?: unknown;
}
