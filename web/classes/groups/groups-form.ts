import { array, object, string, type InferType } from 'yup';
import { v7 } from 'uuid';
import { dealt } from '@avrelle/core/class';
import { MOST_GROUPS, type ClassDetail, type GroupsPut } from '@avrelle/core/wire';

const isOnce = (names: readonly string[]): boolean => new Set(names).size === names.length;

/** The groups, and each student with theirs; '' is none. */
export const groupsSchema = object({
  groups: array(
    object({
      id: string().required(),
      name: string().trim().required('Give every group a name.').max(40, 'The name of a group may have 40 characters.'),
    }).required(),
  )
    .required()
    .max(MOST_GROUPS, `A class may have ${MOST_GROUPS} groups.`)
    .test('names', 'Two groups have the same name.', (groups) => isOnce(groups.map((g) => g.name.toLowerCase()))),
  people: array(
    object({ personId: string().required(), name: string().required(), group: string().defined() }).required(),
  ).required(),
});
export type GroupsValues = InferType<typeof groupsSchema>;

export const valuesOf = ({ groups, members }: ClassDetail): GroupsValues => ({
  groups: groups.map((group) => ({ ...group })),
  people: members
    .filter(({ role }) => role === 'student')
    .map(({ id, name, groupId }) => ({ personId: id, name, group: groupId ?? '' })),
});

export const putOf = ({ groups, people }: GroupsValues, version: number): GroupsPut => ({
  version,
  groups: groups.map(({ id, name }) => ({
    id,
    name,
    personIds: people.filter(({ group }) => group === id).map(({ personId }) => personId),
  })),
});

export const newGroup = (groups: GroupsValues['groups']): GroupsValues['groups'][number] => {
  const names = new Set(groups.map(({ name }) => name));
  const free = Array.from({ length: groups.length + 1 }, (_, n) => `Group ${n + 1}`).find((name) => !names.has(name));
  return { id: v7(), name: free ?? '' };
};

/** Everybody dealt into so many groups at random; those that are there stay, with their names. */
export function atRandom({ groups, people }: GroupsValues, count: number, random: () => number): GroupsValues {
  const made = groups.slice(0, count);
  while (made.length < count) made.push(newGroup(made));
  const by = new Map(
    dealt(people, count, random).flatMap((some, n) => some.map(({ personId }) => [personId, made[n]!.id] as const)),
  );
  return { groups: made, people: people.map((one) => ({ ...one, group: by.get(one.personId) ?? '' })) };
}
