export { SURE, type Anchor, type Candidate, type Located, type Lost, type Placed } from './anchor';
export { describe } from './describe';
export { editDistance } from './edit-distance';
export { locateAll } from './locate';
export { indexText, type TextIndex } from './text-index';
