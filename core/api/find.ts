import { number, object, string } from 'yup';
import { ANNOTATION_GROUPINGS, ANNOTATION_SORTS, SOURCE_SORTS } from '../wire';
import { endpoint } from './endpoint';
import { annotationPage, desk, sourcePage } from './shapes/lists';

const LONGEST_QUERY = 1_000;
/** Most rows that come at once. */
const MOST = 200;

/** A day of the calendar, as ISO 8601 writes it. */
const isDay = (day: string | undefined): boolean =>
  day === undefined ||
  (/^\d{4}-\d{2}-\d{2}$/.test(day) && new Date(`${day}T00:00Z`).toJSON()?.startsWith(day) === true);

/** The day it is where they are, and how many minutes their clocks are ahead of UTC: searches by days go by them. */
export const hereSchema = object({
  day: string().test('day', 'A day is written as in 2026-10-02: "${value}" is none.', isDay),
  ahead: number()
    .integer()
    .min(-14 * 60)
    .max(14 * 60)
    .default(0),
}).noUnknown();

const searchSchema = hereSchema.shape({
  q: string()
    .test(
      'length',
      ({ value }: { value: string }) =>
        `A search may have ${LONGEST_QUERY.toLocaleString('en')} characters, this one has ${value.length.toLocaleString('en')}. Look for fewer words.`,
      (q) => (q?.length ?? 0) <= LONGEST_QUERY,
    )
    .default(''),
});
export const pageSchema = searchSchema.shape({
  offset: number().integer().min(0).max(1_000_000_000).default(0),
  limit: number().integer().min(1).max(MOST).default(60),
});

export const findSources = endpoint('GET', '/api/sources', {
  query: pageSchema.shape({
    sort: string().oneOf(SOURCE_SORTS),
    /** With the passages in which words were found. */
    passages: string().oneOf(['yes', 'no'] as const),
  }),
  answer: sourcePage,
});
export const findAnnotations = endpoint('GET', '/api/annotations', {
  query: pageSchema.shape({ sort: string().oneOf(ANNOTATION_SORTS), by: string().oneOf(ANNOTATION_GROUPINGS) }),
  answer: annotationPage,
});

/** What a search finds, for other programs. */
export const exportTable = endpoint('GET', '/api/sources.csv', { query: searchSchema, gives: ['text/csv'] });
export const exportBookmarks = endpoint('GET', '/api/sources/bookmarks.html', {
  query: searchSchema,
  gives: ['text/html'],
});

export const getDesk = endpoint('GET', '/api/desk', { query: hereSchema, answer: desk });
export const seeDesk = endpoint('POST', '/api/desk/seen');

/** Everything that changes, told to open pages; after `since`, or the Last-Event-ID, what was missed. */
export const listen = endpoint('GET', '/api/events', {
  who: 'browser',
  query: object({ since: string().max(100) }).noUnknown(),
  gives: ['text/event-stream'],
});
