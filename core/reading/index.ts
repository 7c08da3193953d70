export { addSpan, covered, covers, isRead, READ, removeSpan, shareRead, type Spans } from './spans';
export { dwellOn, type Dwell } from './dwell';
export { hear, heardSeconds, heardTo, inOrder, type Heard } from './heard';
