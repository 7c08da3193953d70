/** What pages ask the server for, by feature. */
export { peopleQuery, sessionsQuery, tokensQuery, useWelcome, welcomeQuery } from './account-queries';
export { useAssignment, useClassAssignments, useMyAssignments, useSetHere } from './assignment-queries';
export { useClass, useClasses, useDeletedClasses, useLegends, useOpenClasses, classesQuery } from './class-queries';
export { client } from './client';
export { here, PAGE, sourcesQuery, useAllFound, useDesk, useFound, useSources } from './find-queries';
export { useArrivals, useDraft, useFeeds, useIntake, useJobs, useLists } from './gather-queries';
export { keys } from './keys';
export {
  useCollection,
  useDeleted,
  useLeadingTopics,
  useLinks,
  useOutline,
  useTags,
  useTints,
  useTopic,
  useTopicNews,
} from './library-queries';
export {
  annotationQuery,
  annotationsQuery,
  sourceQuery,
  useAnnotations,
  useChanges,
  useEase,
  useHolding,
  useReaders,
  useSource,
  useSourceText,
  useSuggestedTags,
  useVersions,
} from './source-queries';
export { renew } from './stale';
