/** The id of the field in which anything is found, wherever one is. */
export const FIND_FIELD = 'find-anything';
