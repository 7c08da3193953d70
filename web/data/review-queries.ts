import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query';
import type { Api, SentQueryOf } from '@avrelle/core/api';
import type { AnnotationId, CardId } from '@avrelle/core/wire';
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
export const cardQuery = (id: CardId) =>
  queryOptions({ queryKey: keys.card(id), queryFn: () => call('GET /api/cards/:id', { params: { id } }) });
/** A mark in its place, of which a card is to be made. */
export const passageQuery = (id: AnnotationId) =>
  queryOptions({
    queryKey: keys.passage(id),
    queryFn: () => call('GET /api/annotations/:id/passage', { params: { id } }),
  });
