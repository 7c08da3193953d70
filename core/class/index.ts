export { agreement } from './agreement';
export type { Value, Values } from './agreement';
