export interface Entry {
  readonly status: number;
  readonly title: string;
  /** What was tried, with what value, what was expected, and what to do. `{name}` is filled in. */
  readonly detail: string;
}
