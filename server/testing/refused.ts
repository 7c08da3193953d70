import { AppError } from '../errors';

/** The code of the error that ends some work, or “nothing”. */
export const refused = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'nothing',
    (e: unknown) => (e instanceof AppError ? e.code : String(e)),
  );
