import { string } from 'yup';
import { endpoint } from './endpoint';
import { fields } from './shape';

/** Of the calendar, below our own; null where there is none. */
const address = fields({ path: string().nullable().defined() });

export const getCalendarAddress = endpoint('GET', '/api/calendar', { who: 'browser', answer: address });
/** A new one; the one before leads nowhere any more. */
export const makeCalendarAddress = endpoint('POST', '/api/calendar', { who: 'browser', answer: address });
export const endCalendarAddress = endpoint('DELETE', '/api/calendar', { who: 'browser' });
/** What is due for whoever made the address, for a calendar program (RFC 5545). */
export const getCalendar = endpoint('GET', '/calendar/:hash', { who: 'public', gives: ['text/calendar'] });
