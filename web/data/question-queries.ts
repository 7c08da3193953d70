import { useQuery } from '@tanstack/react-query';
import type { AnnotationId, ClassId, Question, SourceId } from '@avrelle/core/wire';
import { call } from './call';
import { keys } from './keys';

/** The longest wait a timer takes; clocks may differ by the second. In milliseconds. */
const LONGEST_WAIT = 2 ** 31 - 1;
const CLOCKS_DIFFER = 1_000;

/** A clock here may be ahead: what was due a while ago and is not shown is asked for now and then. */
const AHEAD = 15 * 60_000;
const NOW_AND_THEN = 30_000;

/** When the next of some answers are shown by themselves they are asked for again; false where none will be. */
export function untilShown(questions: readonly Question[] | undefined, now = Date.now()): number | false {
  const waits = (questions ?? [])
    .filter(({ answersShown, key }) => answersShown === 'after_due' && key === null)
    .flatMap(({ classes }) => classes.flatMap(({ dueAt }) => (dueAt === null ? [] : Date.parse(dueAt) - now)))
    .filter((wait) => wait > -AHEAD)
    .map((wait) => (wait > 0 ? wait + CLOCKS_DIFFER : NOW_AND_THEN));
  return waits.length > 0 ? Math.min(LONGEST_WAIT, ...waits) : false;
}

export const useQuestionsOn = (sourceId: SourceId) =>
  useQuery({
    queryKey: keys.questionsOn(sourceId),
    queryFn: () => call('GET /api/sources/:id/questions', { params: { id: sourceId } }),
    refetchInterval: (query) => untilShown(query.state.data),
  });
export const useClassQuestions = (id: ClassId) =>
  useQuery({
    queryKey: keys.classQuestions(id),
    queryFn: () => call('GET /api/classes/:id/questions', { params: { id } }),
    refetchInterval: (query) => untilShown(query.state.data),
  });
/** Who answered what, for who teaches. */
export const useResponses = (id: ClassId, annotationId: AnnotationId) =>
  useQuery({
    queryKey: keys.responses(id, annotationId),
    queryFn: () => call('GET /api/classes/:id/questions/:annotationId/responses', { params: { id, annotationId } }),
  });
