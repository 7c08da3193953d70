import * as account from './account';
import * as annotations from './annotations';
import * as assignments from './assignments';
import * as calendar from './calendar';
import * as classes from './classes';
import * as discussion from './discussion';
import type { Endpoint, NameOf } from './endpoint';
import * as find from './find';
import * as gather from './gather';
import * as groups from './groups';
import * as held from './held';
import * as joining from './joining';
import * as kinds from './kinds';
import * as library from './library';
import * as live from './live';
import * as notifications from './notifications';
import * as questions from './questions';
import * as review from './review';
import * as sources from './sources';
import * as study from './study';
import * as walkthroughs from './walkthroughs';

const FEATURES = {
  account,
  annotations,
  assignments,
  calendar,
  classes,
  discussion,
  find,
  gather,
  groups,
  held,
  joining,
  kinds,
  library,
  live,
  notifications,
  questions,
  review,
  sources,
  study,
  walkthroughs,
};
type Features = typeof FEATURES;
type EndpointIn<Feature> = Extract<Feature[keyof Feature], Endpoint>;
type EveryEndpoint = { [F in keyof Features]: EndpointIn<Features[F]> }[keyof Features];

/** All endpoints by method and path. As a type it costs the browser nothing. */
export type Api = { readonly [E in EveryEndpoint as NameOf<E>]: E };

const isEndpoint = (value: unknown): value is Endpoint =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value;

/** An endpoint with what it is called in descriptions. */
export interface NamedEndpoint extends Endpoint {
  readonly operation: string;
  readonly feature: string;
}

/** All there are, for what walks them. */
export const ENDPOINTS: readonly NamedEndpoint[] = Object.entries(FEATURES).flatMap(([feature, of]) =>
  Object.entries<unknown>(of).flatMap(([operation, value]) =>
    isEndpoint(value) ? [{ ...value, operation, feature }] : [],
  ),
);
const BY_NAME = new Map(ENDPOINTS.map((endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint]));

/** The endpoint of a method and path. */
export const endpointNamed = <N extends keyof Api>(name: N): Api[N] => BY_NAME.get(name) as unknown as Api[N];
