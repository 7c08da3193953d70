export { offset, range, wholeCodePoints, splitsPair, overlaps, contains, type Offset, type Range } from './offset';
export { type Block, type Outline, type Run, type TextStream } from './stream';
export { type BlockRole } from './elements';
export { type TextNodeLike } from './tree';
export { readTree, ASIDE_ATTRIBUTE } from './read-tree';
export { toTree, TreeMap, type TreePoint } from './locate-in-tree';
export { readingMinutes, mainText, WORDS_PER_MINUTE } from './reading-time';
export { sentences } from './sentences';
