import type { Problem } from '@avrelle/core/wire';
import { ASKING } from './errors/asking';
import { GATHERING } from './errors/gathering';

/** Every error a person can meet. */
export const ERRORS = { ...ASKING, ...GATHERING } as const;

export type ErrorCode = keyof typeof ERRORS;
export type ErrorValues = Readonly<Record<string, string | number>>;

/** Thrown by routes and workers; becomes RFC 9457 problem details at the edge. */
export class AppError extends Error {
  override readonly name = 'AppError';
  constructor(
    readonly code: ErrorCode,
    readonly values: ErrorValues = {},
    readonly extra: { readonly field?: string; readonly current?: unknown } = {},
  ) {
    super(fill(ERRORS[code].detail, values));
  }
}

const fill = (text: string, values: ErrorValues): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => (key in values ? String(values[key]) : whole));

export function toProblem(error: AppError): Problem {
  const { status, title } = ERRORS[error.code];
  return {
    type: `urn:avrelle:error:${error.code}`,
    title,
    status,
    detail: error.message,
    code: error.code,
    ...error.extra,
  };
}
