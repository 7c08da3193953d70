import type { Annotation, StreamEvent, ClassId, PersonId } from '@avrelle/core/wire';
import { annotationFor, authorOf, viewersOf } from '../annotations/queries';
import { membershipsOf, openAmong, type Membership } from '../classes/queries';
import type { Db } from '../db/database';
import { jobOf } from '../jobs/queries';
import { readersOf } from '../sources/queries';
import type { EventRow, Formerly } from './queries';

/** What one person is told of an event, as JSON; undefined when it is not for them. */
export type Told = (personId: PersonId) => string | undefined;

/**
 * What an event says to whom. Everything is asked of the database once, when the first listener wants it, however many
 * there are; who is told the same is given the same string.
 */
export function told(db: Db, event: EventRow): Told {
  switch (event.type) {
    case 'annotation':
      return annotationTold(db, event);
    case 'source':
      return toThose(() => new Set(readersOf(db, event.sourceId!)), { type: 'source', sourceId: event.sourceId! });
    case 'classes':
    case 'key':
    case 'desk':
    case 'questions':
    case 'live':
    case 'library':
    case 'review':
      return toThose(() => new Set([...membersIn(db, event.classId), event.personId ?? '']), { type: event.type });
    case 'walkthroughs':
      return toThose(() => new Set(teachersIn(db, event.classId)), { type: 'walkthroughs' });
    case 'arrivals':
    case 'study':
    case 'threads':
      return toThose(() => new Set([event.personId ?? '']), { type: event.type });
    case 'job': {
      const job = once(() => jobOf(db, event.personId!, event.jobId!));
      const message = once(() => job() && JSON.stringify({ type: 'job', job: job()! } satisfies StreamEvent));
      return (personId) => (personId === event.personId ? message() : undefined);
    }
  }
}

function toThose(people: () => ReadonlySet<string>, event: StreamEvent): Told {
  const those = once(people);
  const message = JSON.stringify(event);
  return (personId) => (those().has(personId) ? message : undefined);
}

/** Everybody who sees it is told the same, but for which of its classes are theirs, and what they are there. */
function annotationTold(db: Db, event: EventRow): Told {
  const id = event.annotationId!;
  const base = once(() => annotationFor(db, authorOf(db, id) ?? '', id));
  const viewers = once(() => new Set(viewersOf(db, id)));
  const rolesBy = once(() => rolesByPerson(membershipsOf(db, base()?.classIds ?? [])));
  const open = once(() => openAmong(db, base()?.classIds ?? []));
  const former = once(() => new Set(formerMembers(db, event.formerClasses)));
  const messages = new Map<string, string>();
  const as = (annotation: Annotation): string => {
    const { classIds, groups, held, hidden, elsewhere } = annotation;
    const key = JSON.stringify([classIds, groups, held, hidden, elsewhere]);
    let message = messages.get(key);
    if (message === undefined)
      messages.set(key, (message = JSON.stringify({ type: 'annotation', annotation } satisfies StreamEvent)));
    return message;
  };
  const gone = JSON.stringify({ type: 'gone', annotationId: id, sourceId: event.sourceId! } satisfies StreamEvent);
  return (personId) => {
    const annotation = base();
    if (annotation && personId === annotation.author.id) return as(annotation);
    if (annotation && viewers().has(personId)) return as(forMember(annotation, rolesBy().get(personId), open()));
    // What was taken back leaves a trace for whoever sees an answer to it.
    const trace = annotation?.deleted ? annotationFor(db, personId, id) : undefined;
    if (trace) return as(trace);
    return event.personId === personId || former().has(personId) ? gone : undefined;
  };
}

const membersIn = (db: Db, classId: ClassId | null): string[] =>
  classId === null ? [] : membershipsOf(db, [classId]).map((m) => m.personId);

const teachersIn = (db: Db, classId: ClassId | null): string[] =>
  membershipsOf(db, classId === null ? [] : [classId])
    .filter(({ role }) => role !== 'student')
    .map((m) => m.personId);

/** Events of an earlier version named classes alone. */
function formerMembers(db: Db, formerClasses: string | null): PersonId[] {
  const former = JSON.parse(formerClasses ?? '[]') as readonly (Formerly | ClassId)[];
  return former.flatMap((one) => {
    const { classId, teachers, groupId }: Formerly = typeof one === 'string' ? { classId: one, teachers: false } : one;
    return membershipsOf(db, [classId])
      .filter((m) => m.role !== 'student' || (!teachers && (groupId === undefined || m.groupId === groupId)))
      .map(({ personId }) => personId);
  });
}

/** What somebody is in classes. */
type Roles = ReadonlyMap<ClassId, Pick<Membership, 'role' | 'groupId'>>;

/**
 * As somebody who is in some of its classes sees it: students do not learn where it is held or hidden, nor of other
 * groups, and nobody which other classes it is for.
 */
function forMember(
  { held = [], hidden = [], groups = [], ...annotation }: Annotation,
  roles: Roles = new Map(),
  open: ReturnType<typeof openAmong> = [],
): Annotation {
  const teaches = ({ classId }: { readonly classId: ClassId }): boolean =>
    roles.has(classId) && roles.get(classId)?.role !== 'student';
  const groupIn = (id: ClassId) => groups.find(({ classId }) => classId === id)?.groupId;
  const notForStudents = new Set([...held, ...hidden].map((one) => one.classId));
  const isForStudents = (id: ClassId): boolean => !notForStudents.has(id) && annotation.teachersOnly !== true;
  const isForMe = (id: ClassId): boolean =>
    isForStudents(id) && [undefined, roles.get(id)?.groupId].includes(groupIn(id));
  const others = open.filter(({ id }) => !roles.has(id) && isForStudents(id) && groupIn(id) === undefined);
  const known = groups.filter(
    ({ classId, groupId }) => teaches({ classId }) || roles.get(classId)?.groupId === groupId,
  );
  return {
    ...annotation,
    ...(others.length > 0 ? { elsewhere: others.some(({ askable }) => askable === 1) ? 'askable' : 'closed' } : {}),
    classIds: annotation.classIds.filter((id) => roles.has(id) && (teaches({ classId: id }) || isForMe(id))),
    ...(known.length > 0 ? { groups: known } : {}),
    ...(held.some(teaches) ? { held: held.filter(teaches) } : {}),
    ...(hidden.some(teaches) ? { hidden: hidden.filter(teaches) } : {}),
  };
}

function rolesByPerson(memberships: readonly Membership[]): ReadonlyMap<PersonId, Roles> {
  const people = new Map<PersonId, Map<ClassId, Membership>>();
  for (const membership of memberships) {
    const { personId, classId } = membership;
    people.set(personId, (people.get(personId) ?? new Map<ClassId, Membership>()).set(classId, membership));
  }
  return people;
}

function once<T>(work: () => T): () => T {
  let done: { readonly value: T } | undefined;
  return () => (done ??= { value: work() }).value;
}
