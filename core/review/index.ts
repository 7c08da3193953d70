export { answered, chanceOf, newMemory, type CardMemory } from './memory';
export { MEMORY_STATES, RATINGS, RETENTION, type CardRating, type MemoryState } from './rating';
export { partsOf, placeSlips, slipsOver, type PassagePart, type Slip } from './slips';
export { surroundings, type Surrounding } from './surroundings';
