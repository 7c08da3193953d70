/**
 * The interface over the network. `ENDPOINTS` holds all of it for what walks them; `Api` is the same as a type, by method
 * and path. The server answers
 * an endpoint, and the browser calls it, by method and path, as in `GET /api/sources/:id`: the compiler knows them all.
 */
export { endpointNamed, ENDPOINTS } from './all';
export type { Api, NamedEndpoint } from './all';
export type { AnswerOf, Asker, BodyOf, Endpoint, Method, ParamsOf, QueryOf, SentBodyOf, SentQueryOf } from './endpoint';
export { STANDINGS } from './permission';
export type { Permission, Standing, Thing } from './permission';
