import { z } from 'zod'
import { ALL_ROUTES } from '#shared/contract/all-routes'
import type { RouteSpec } from '#shared/contract/route'
import { cookieName } from './session-cookie'

const PROBLEM = {
  description: 'Problem details (RFC 9457).',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
}

/** The API's description as OpenAPI 3.1, from the same schemas that the routes check by. */
export function describeApi(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const spec of ALL_ROUTES) {
    const at = paths[spec.path] ?? {}
    at[spec.method.toLowerCase()] = describeRoute(spec)
    paths[spec.path] = at
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Rekko',
      version: '1',
      description: 'Amounts, prices, quantities and days are text. Changes carry If-Match with the version seen.',
    },
    paths,
    components: {
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: cookieName() },
        token: { type: 'http', scheme: 'bearer' },
      },
      schemas: {
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            fields: {
              type: 'array',
              items: { type: 'object', properties: { field: { type: 'string' }, message: { type: 'string' } } },
            },
          },
        },
      },
    },
  }
}

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') =>
  z.toJSONSchema(schema, { io, unrepresentable: 'any', target: 'draft-2020-12' })

function parametersOf(schema: z.ZodType, place: 'path' | 'query'): unknown[] {
  const { properties = {}, required = [] } = schemaOf(schema, 'input') as {
    properties?: Record<string, unknown>
    required?: string[]
  }
  return Object.entries(properties).map(([name, s]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema: s,
  }))
}

function describeRoute(spec: RouteSpec): Record<string, unknown> {
  const header = (name: string, required: boolean, description: string) => ({
    name,
    in: 'header',
    required,
    description,
    schema: { type: 'string' },
  })
  const hasBody = spec.bytes !== 'upload' && (spec.method === 'POST' || spec.method === 'PUT')
  const content =
    spec.bytes === 'download'
      ? { 'application/octet-stream': {} }
      : spec.bytes === 'stream'
        ? { 'text/event-stream': { schema: schemaOf(spec.reply, 'output') } }
        : { 'application/json': { schema: schemaOf(spec.reply, 'output') } }
  return {
    operationId: spec.name,
    summary: spec.summary,
    tags: [spec.path.split('/')[2] ?? ''],
    // The right of the table that it takes; what is seen or changed with it is decided besides.
    'x-right': spec.access,
    ...(spec.access === 'public' ? {} : { security: [{ session: [] }, { token: [] }] }),
    parameters: [
      ...parametersOf(spec.params, 'path'),
      ...parametersOf(spec.query, 'query'),
      ...(spec.ifMatch ? [header('If-Match', true, 'The version that was seen.')] : []),
      ...(spec.idempotent ? [header('Idempotency-Key', false, 'Repeats with the same key happen once.')] : []),
    ],
    ...(spec.bytes === 'upload'
      ? { requestBody: { required: true, content: { 'application/octet-stream': {} } } }
      : {}),
    ...(hasBody
      ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(spec.body, 'input') } } } }
      : {}),
    responses: { 200: { description: 'Done.', content }, '4XX': PROBLEM, '5XX': PROBLEM },
  }
}
