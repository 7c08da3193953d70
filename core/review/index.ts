export {
  answered,
  chanceOf,
  MEMORY_STATES,
  newMemory,
  RATINGS,
  RETENTION,
  type CardMemory,
  type CardRating,
  type MemoryState,
} from './memory';
export { partsOf, placeSlips, slipsOver, type PassagePart, type Slip } from './slips';
export { surroundings, type Surrounding } from './surroundings';
