export { SURE, type Anchor, type Candidate, type Located, type Lost, type Placed } from './anchor';
export { compare, type Change } from './compare';
export { describe } from './describe';
export { editDistance } from './edit-distance';
export { locateAll } from './locate';
export { remap, type Remapped } from './remap';
export { fromSelectors, SelectorError, toSelectors, type Selector } from './selectors';
export {
  addressOf,
  directiveFor,
  findDirective,
  formatTextDirective,
  parseTextDirective,
  readAddress,
  type TextDirective,
} from './text-fragment';
export { indexText, type TextIndex } from './text-index';
export {
  areaBetween,
  isPin,
  onOtherPicture,
  spotName,
  toFragment,
  type AreaSpot,
  type Crop,
  type Spot,
  type TimeSpot,
  type WholeSpot,
} from './spot';
