import { RETENTION } from '@avrelle/core/review';
import type { PersonId, ReviewWish } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { wishOf } from './queries';

/** How somebody practises who has said nothing of it: twenty new cards a day take about ten minutes (common practice). */
const USUAL: ReviewWish = { retention: RETENTION.usual, newPerDay: 20, answersPerDay: 200 };

export const wishFor = (db: Db, me: PersonId): ReviewWish => wishOf(db, me) ?? USUAL;
