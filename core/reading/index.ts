export { addSpan, covered, covers, removeSpan, shareRead, type Spans } from './spans';
export { dwellOn, type Dwell } from './dwell';
