export { addSpan, covered, covers, type Spans } from './spans';
export { dwellOn, type Dwell } from './dwell';
