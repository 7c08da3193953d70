export { type Anchor, type Located } from './anchor';
export { describe } from './describe';
export { indexText, locateAll, type LocateIndex } from './locate';
