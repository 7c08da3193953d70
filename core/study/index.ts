export { chunksOf, remembering } from './chunks';
export { blocksOf, joinBlocks, type NoteBlock } from './blocks';
export { wordCount } from './word-count';
export {
  LEFT_OUT,
  excerptIn,
  readExcerpt,
  withPassage,
  writeExcerpt,
  type Excerpt,
  type ExcerptParts,
  type ReadExcerpt,
} from './excerpt';
export { excerptsOf, follow, type Current, type ExcerptState, type Followed, type Following } from './follow';
export { merge, TWICE_MINE, TWICE_THEIRS, type Merged } from './merge';
export { placesIn, shortReference, type Referred } from './reference';
