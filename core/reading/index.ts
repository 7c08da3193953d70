export { addSpan, covered, covers, removeSpan, type Spans } from './spans';
export { dwellOn, type Dwell } from './dwell';
