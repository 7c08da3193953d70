// Apart from the schemas: pages that only show things load no checking of them.

/** How many accounts come at once. */
export const PEOPLE_AT_ONCE = 50;
/** How many readings of a class come at once. */
export const READINGS_AT_ONCE = 60;
