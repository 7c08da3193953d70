import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query';
import type { Api, SentQueryOf } from '@avrelle/core/api';
import type { AnnotationId, CardId, CardRow, ClassId, SourceId } from '@avrelle/core/wire';
import { call } from './call';
import { here } from './find-queries';
import { keys } from './keys';

/** Of what is practised; nothing said: of everything. */
export type Chosen = Pick<SentQueryOf<Api['GET /api/review']>, 'source' | 'tag' | 'note' | 'class'>;

export const reviewQuery = (chosen: Chosen) =>
  queryOptions({
    queryKey: keys.due(chosen),
    queryFn: () => call('GET /api/review', { query: { ...chosen, ...here() } }),
    placeholderData: keepPreviousData,
  });
export const useReviewStatistics = () =>
  useQuery({
    queryKey: keys.reviewStatistics,
    queryFn: () => call('GET /api/review/statistics', { query: here() }),
  });
export const useReviewWish = () => useQuery({ queryKey: keys.reviewWish, queryFn: () => call('GET /api/review/wish') });
export const useCards = (asked: SentQueryOf<Api['GET /api/cards']>) =>
  useQuery({
    queryKey: keys.cards(asked),
    queryFn: () => call('GET /api/cards', { query: asked }),
    placeholderData: keepPreviousData,
  });
/** Those of a source that I forgot after I had learnt them. */
export const useHardCards = (source: SourceId): readonly CardRow[] =>
  useCards({ source, forgotten: 1, limit: 500 }).data?.cards ?? NONE;
const NONE: readonly CardRow[] = [];
export const cardQuery = (id: CardId) =>
  queryOptions({ queryKey: keys.card(id), queryFn: () => call('GET /api/cards/:id', { params: { id } }) });
/** A mark in its place, of which a card is to be made. */
export const passageQuery = (id: AnnotationId) =>
  queryOptions({
    queryKey: keys.passage(id),
    queryFn: () => call('GET /api/annotations/:id/passage', { params: { id } }),
  });
/** The cards of a class that I teach. */
export const useClassCards = (id: ClassId) =>
  useQuery({
    queryKey: keys.classCards(id),
    queryFn: () => call('GET /api/classes/:id/cards', { params: { id } }),
  });
export const useNamedAnswers = (id: ClassId, cardId: CardId) =>
  useQuery({
    queryKey: keys.namedAnswers(id, cardId),
    queryFn: () => call('GET /api/classes/:id/cards/:cardId/answers', { params: { id, cardId } }),
  });
