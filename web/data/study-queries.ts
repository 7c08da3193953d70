import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query';
import type { SourceId, StudyNoteId } from '@avrelle/core/wire';
import { call } from './call';
import { here } from './find-queries';
import { keys } from './keys';

export const useStudyNotes = () => useQuery({ queryKey: keys.studyNotes, queryFn: () => call('GET /api/notes') });
export const studyNoteQuery = (id: StudyNoteId) =>
  queryOptions({
    queryKey: keys.studyNote(id),
    queryFn: () => call('GET /api/notes/:id', { params: { id } }),
  });
/** That of a source; it is made where there is none yet. */
export const sourceNoteQuery = (id: SourceId) =>
  queryOptions({
    queryKey: keys.sourceNote(id),
    queryFn: () => call('POST /api/sources/:id/note', { params: { id } }),
  });
/** What could be put into a note, by a search. */
export const useCandidates = (id: StudyNoteId, q: string) =>
  useQuery({
    queryKey: keys.candidates(id, q),
    queryFn: () => call('GET /api/notes/:id/candidates', { params: { id }, query: { q, limit: 30, ...here() } }),
    placeholderData: keepPreviousData,
  });
