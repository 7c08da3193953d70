import { array, number, object, string, type InferType } from 'yup';
import { idSchema } from './ids';

export const MOST_GROUPS = 40;
const once = (values: readonly string[]): boolean => new Set(values).size === values.length;

/** The groups of a class as a whole: who is in none of them is in no group. */
export const groupsPutSchema = object({
  /** The version that was seen. */
  version: number().integer().min(0).required(),
  groups: array(
    object({
      id: idSchema().required(),
      name: string().trim().required('Give every group a name.').max(40, 'The name of a group may have 40 characters.'),
      personIds: array(idSchema().required()).required().max(1000),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(MOST_GROUPS, `A class may have ${MOST_GROUPS} groups.`)
    .test('names', 'Two groups have the same name.', (groups) => once(groups.map((g) => g.name.toLowerCase())))
    .test('ids', 'A group stands there twice.', (groups) => once(groups.map((g) => g.id)))
    .test('one', 'Somebody is in two groups.', (groups) => once(groups.flatMap((g) => g.personIds))),
}).noUnknown();
export type GroupsPut = InferType<typeof groupsPutSchema>;
