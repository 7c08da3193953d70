import * as account from './account';
import * as classes from './classes';
import type { Endpoint } from './endpoint';

const isEndpoint = (value: unknown): value is Endpoint =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value;

/** All there are, for what walks them. */
export const ENDPOINTS: readonly Endpoint[] = [account, classes].flatMap((feature) =>
  Object.values(feature).filter(isEndpoint),
);
