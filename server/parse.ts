import {
  ValidationError,
  type AnyObjectSchema,
  type InferType,
  type SchemaFieldDescription,
  type SchemaInnerTypeDescription,
  type SchemaObjectDescription,
} from 'yup';
import { AppError } from './errors';

/**
 * Checks the body of a request against its schema. Types are taken as they were sent: a number is no text, an object no
 * number, and nothing of it is called. Throws `invalid` with the first thing wrong, in words.
 */
export function parse<S extends AnyObjectSchema>(schema: S, given: unknown): InferType<S> {
  const value = given ?? {};
  checkTypes(schema.describe({ value }), value, '');
  return checked(schema, value);
}

/** Checks what stands in an address, where everything is text: numbers are read from it. */
export function parseQuery<S extends AnyObjectSchema>(schema: S, given: unknown): InferType<S> {
  refuseInherited(given as object);
  return checked(schema, given);
}

/** Names that every object has (`__proto__`, `toString`) are no fields of ours. */
function refuseInherited(value: object): void {
  const inherited = Object.keys(value).find((name) => name in Object.prototype);
  if (inherited !== undefined)
    throw new AppError('invalid', { message: `“${inherited}” is no field of what was sent.` });
}

function checked<S extends AnyObjectSchema>(schema: S, value: unknown): InferType<S> {
  try {
    return schema.validateSync(value, { abortEarly: true, strict: false, stripUnknown: false }) as InferType<S>;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new AppError('invalid', { message: error.message }, error.path ? { field: error.path } : {});
  }
}

type Described = SchemaFieldDescription;

/** What a schema would turn into another type, or call a method of, is refused before it is looked at. */
function checkTypes(described: Described, value: unknown, path: string): void {
  const wrong = (expected: string): never => {
    throw new AppError(
      'invalid',
      { message: `${path || 'What was sent'} has to be ${expected}; it is ${nameOf(value)}.` },
      path ? { field: path } : {},
    );
  };
  // What may be absent or null is the schema's to say.
  if (value === undefined || value === null) return;
  switch (described.type) {
    case 'string':
      if (typeof value !== 'string') wrong('text');
      return;
    case 'boolean':
      if (typeof value !== 'boolean') wrong('true or false');
      return;
    case 'number':
      if (!isOrdinary(value)) wrong('a number of ordinary size');
      return;
    case 'array':
      if (!Array.isArray(value)) return wrong('a list');
      return checkItems(described as SchemaInnerTypeDescription, value, path);
    case 'object':
      if (typeof value !== 'object' || Array.isArray(value)) return wrong('an object');
      return checkFields(described as SchemaObjectDescription, value, path);
  }
}

const isOrdinary = (value: unknown): boolean =>
  typeof value === 'number' && Number.isFinite(value) && Math.abs(value) <= Number.MAX_SAFE_INTEGER;

function checkItems({ innerType }: SchemaInnerTypeDescription, items: readonly unknown[], path: string): void {
  if (!innerType || Array.isArray(innerType)) return;
  items.forEach((item, n) => checkTypes(innerType, item, `${path}[${n}]`));
}

function checkFields({ fields }: SchemaObjectDescription, value: object, path: string): void {
  refuseInherited(value);
  for (const [name, field] of Object.entries(fields ?? {}))
    checkTypes(
      field,
      Object.hasOwn(value, name) ? (value as Record<string, unknown>)[name] : undefined,
      path ? `${path}.${name}` : name,
    );
}

function nameOf(value: unknown): string {
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'object') return 'an object';
  return typeof value === 'string' ? 'text' : `the ${typeof value} ${String(value)}`;
}
