import { ValidationError, type AnyObjectSchema, type InferType } from 'yup';
import { AppError } from './errors';

/** Checks what came from outside against its schema. Throws `invalid` with the first thing wrong, in words. */
export function parse<S extends AnyObjectSchema>(schema: S, given: unknown): InferType<S> {
  try {
    return schema.validateSync(given ?? {}, { abortEarly: true, strict: false, stripUnknown: false }) as InferType<S>;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new AppError('invalid', { message: error.message }, error.path ? { field: error.path } : {});
  }
}
