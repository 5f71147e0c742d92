/** The HTTP interface as an OpenAPI document, made from the contract: it cannot say anything else than what is checked. */
import { setImmediate as turn } from 'node:timers/promises'
import { api, isWrite, paramsOf, type Route, type RouteKey } from '@tessellum/contract/api'
import { apiError } from '@tessellum/contract/errors'
import { rights } from '@tessellum/contract/rights'
import { z } from 'zod'

const schemaOf = (of: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...schema } = z.toJSONSchema(of, { io, unrepresentable: 'any', reused: 'inline' }) as Record<
    string,
    unknown
  >
  return schema
}

const json = (schema: object) => ({ 'application/json': { schema } })

function answerOf({ answer }: Route) {
  if (answer === 'pdf') return { 'application/pdf': {} }
  if (answer === 'file') return { 'application/octet-stream': {} }
  if (answer === 'stream') return { 'text/event-stream': {} }
  return json(schemaOf(answer, 'output'))
}

function parametersOf(named: z.ZodType | undefined, where: 'path' | 'query') {
  if (!named) return []
  const { properties = {}, required = [] } = schemaOf(named, 'input') as {
    properties?: Record<string, object>
    required?: string[]
  }
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    schema,
  }))
}

/** Route after route, so that others are answered in between. */
export async function openApi() {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [key, route] of Object.entries(api) as [RouteKey, Route][]) {
    await turn()
    const [method = '', path = ''] = key.split(' ')
    const at = path.replaceAll(/:(\w+)/g, '{$1}')
    const { right } = route
    const changes = method !== 'GET'
    const who = right === 'open' ? 'anyone' : right === 'signed-in' ? 'anyone signed in' : rights[right].join(', ')
    paths[at] ??= {}
    paths[at][method.toLowerCase()] = {
      summary: route.what,
      description: `For ${who}.`,
      parameters: [
        ...parametersOf(paramsOf(key), 'path'),
        ...parametersOf(route.query, 'query'),
        ...(changes && key !== 'POST /api/sign-in'
          ? [
              {
                name: 'x-csrf-token',
                in: 'header',
                required: true,
                schema: { type: 'string' },
                description: 'From signing in or GET /api/me.',
              },
            ]
          : []),
        ...(isWrite(key)
          ? [
              {
                name: 'idempotency-key',
                in: 'header',
                required: true,
                schema: { type: 'string', pattern: '^[\\w-]{8,80}$' },
                description: 'Makes a request safe to repeat: the same key never acts twice, and goes with one body.',
              },
            ]
          : []),
      ],
      ...(route.body ? { requestBody: { required: true, content: json(schemaOf(route.body, 'input')) } } : {}),
      ...(route.bytes ? { requestBody: { required: true, content: { 'application/octet-stream': {} } } } : {}),
      responses: {
        200: { description: 'Done.', content: answerOf(route) },
        ...(isWrite(key)
          ? { 204: { description: 'Done. What follows from it could not be told yet: ask again with the same key.' } }
          : {}),
        default: { description: 'Refused, and why.', content: json({ $ref: '#/components/schemas/HttpProblem' }) },
      },
      security: right === 'open' ? [] : [{ session: [] }],
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Tessellum',
      version: '1',
      description:
        'What the pages of a shop ask of its server. Everything refused has one shape, with a hint how to fix it.',
    },
    paths,
    components: {
      schemas: { HttpProblem: schemaOf(apiError, 'output') },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'tessellum' } },
    },
  }
}
