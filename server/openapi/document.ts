import { convertSchema } from '@sodaru/yup-to-json-schema';
import type { Schema } from 'yup';
import { ENDPOINTS, type NamedEndpoint } from '@avrelle/core/api';

type Json = Readonly<Record<string, unknown>>;
type JsonSchema = ReturnType<typeof convertSchema>;

const WHO: Readonly<Record<NamedEndpoint['who'], string>> = {
  public: 'Anybody may ask.',
  'signed-in': 'Whoever is signed in, or a program with an access key.',
  browser: 'Only somebody who signed in with their password; no program with an access key.',
  administrator: 'Only an administrator who signed in with their password.',
};

/** The interface over the network as an OpenAPI 3.1.0 document, made of the endpoints themselves. */
export const openApiDocument = (): Json => ({
  openapi: '3.1.0',
  info: {
    title: 'Avrelle',
    version: '1',
    description:
      'Sources, annotations and classes. Programs send an access key, made under “Your account”, as a bearer token.',
  },
  servers: [{ url: '/' }],
  tags: [...new Set(ENDPOINTS.map((e) => e.feature))].map((name) => ({ name })),
  paths: paths(),
  components: {
    securitySchemes: {
      key: { type: 'http', scheme: 'bearer' },
      session: { type: 'apiKey', in: 'cookie', name: 'avrelle_session' },
    },
    responses: { Problem: { description: 'Refused, and why (RFC 9457).', content: PROBLEM } },
  },
});

const PROBLEM = {
  'application/problem+json': {
    schema: {
      type: 'object',
      required: ['type', 'title', 'status', 'detail', 'code'],
      properties: {
        type: { type: 'string' },
        title: { type: 'string' },
        status: { type: 'integer' },
        detail: { type: 'string' },
        code: { type: 'string' },
        field: { type: 'string' },
      },
    },
  },
};

function paths(): Json {
  const made: Record<string, Record<string, Json>> = {};
  for (const endpoint of ENDPOINTS) {
    const path = endpoint.path.replace(/:(\w+)/g, '{$1}');
    made[path] = { ...made[path], [endpoint.method.toLowerCase()]: operationOf(endpoint) };
  }
  return made;
}

const operationOf = (endpoint: NamedEndpoint): Json => ({
  operationId: endpoint.operation,
  tags: [endpoint.feature],
  description: [WHO[endpoint.who], permissionWords(endpoint)].filter(Boolean).join(' '),
  ...(endpoint.who === 'public' ? { security: [] } : { security: securityOf(endpoint) }),
  parameters: [...pathParameters(endpoint), ...queryParameters(endpoint)],
  ...bodyOf(endpoint),
  responses: { ...answerOf(endpoint), default: { $ref: '#/components/responses/Problem' } },
});

const permissionWords = ({ may }: NamedEndpoint): string =>
  may ? `The asker has to be ${may.as} of the ${may.thing}.` : '';

const securityOf = ({ who }: NamedEndpoint): readonly Json[] =>
  who === 'signed-in' ? [{ session: [] }, { key: [] }] : [{ session: [] }];

const pathParameters = ({ path }: NamedEndpoint): readonly Json[] =>
  [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: name === 'hash' ? { type: 'string', pattern: '^[0-9a-f]{64}$' } : { type: 'string', format: 'uuid' },
  }));

function queryParameters({ query }: NamedEndpoint): readonly Json[] {
  if (!query) return [];
  const { properties = {}, required = [] } = jsonSchemaOf(query);
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
}

function bodyOf({ body, takes }: NamedEndpoint): Json {
  if (body) return { requestBody: { required: true, content: jsonContent(body) } };
  if (takes.length > 0) return { requestBody: { required: true, content: fileContent(takes) } };
  return {};
}

function answerOf({ answer, gives }: NamedEndpoint): Json {
  if (answer) return { 200: { description: 'Done.', content: jsonContent(answer) } };
  if (gives.length > 0) return { 200: { description: 'A file.', content: fileContent(gives) } };
  return { 204: { description: 'Done.' } };
}

const jsonContent = (schema: Schema): Json => ({ 'application/json': { schema: jsonSchemaOf(schema) } });
const fileContent = (types: readonly string[]): Json => Object.fromEntries(types.map((type) => [type, {}]));

/** What the converter says of a shape that only a function checks is nothing; defaults of whole objects say nothing. */
function jsonSchemaOf(schema: Schema): JsonSchema {
  return JSON.parse(
    JSON.stringify(convertSchema(schema as Parameters<typeof convertSchema>[0])),
    (key, value: unknown) => {
      if (key === 'default' && typeof value === 'object' && !Array.isArray(value)) return undefined;
      if (key === 'type' && Array.isArray(value) && value.length === 0) return undefined;
      return value;
    },
  ) as JsonSchema;
}
