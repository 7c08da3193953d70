import { array, boolean, number, object, string, tuple, type InferType, type ObjectShape, type Schema } from 'yup';

/** Read only throughout; what may be absent may be undefined. */
type Loose<T> = T extends string
  ? string extends T
    ? string
    : T
  : T extends object
    ? { readonly [K in keyof T]: Loose<T[K]> }
    : T;
type Missing<T, Described> = T extends readonly unknown[]
  ? never
  : T extends object
    ? Exclude<keyof T, keyof NonNullable<Described>>
    : never;
type Fits<T, Described> = [Loose<T>] extends [Loose<Described>]
  ? [Missing<NonNullable<T>, Described>] extends [never]
    ? unknown
    : { readonly 'fields are missing': Missing<NonNullable<T>, Described> }
  : { readonly 'does not describe': T };

/** A schema for what a type says already: where the two differ, it does not compile. */
export const shape =
  <T>() =>
  <S extends Schema>(schema: S & Fits<T, InferType<S>>): Schema<T> =>
    schema as unknown as Schema<T>;

/** An object that has these fields and no others. */
export const fields = <F extends ObjectShape>(of: F) => object(of).noUnknown().required();
export const id = () => string().required();
/** RFC 3339 date-time. */
export const time = () => string().required();
export const text = () => string().defined().nonNullable();
export const amount = () => number().required();
export const flag = () => boolean().required();
export const list = <S extends Schema>(of: S) => array(of as Schema<InferType<S>>).required();
export const ids = () => list(id());
/** A pair of numbers: a range, or an amount beside a place. */
export const pair = () => tuple([number().required(), number().required()]).required();
