/** How a card came back to somebody, the worst first. */
export const RATINGS = ['forgot', 'partly', 'knew', 'easily'] as const;
export type CardRating = (typeof RATINGS)[number];

/** `new`: never answered; `learning` and `relearning`: comes back within the hour; `review`: after days. */
export const MEMORY_STATES = ['new', 'learning', 'review', 'relearning'] as const;
export type MemoryState = (typeof MEMORY_STATES)[number];

/** The share of cards that one wants to remember when they come back. */
export const RETENTION = { least: 0.7, usual: 0.9, most: 0.97 } as const;
