/** The HTTP interface as an OpenAPI document, made from the contract: it cannot say anything else than what is checked. */
import { setImmediate as turn } from 'node:timers/promises'
import { api, type Described } from '@tessellum/contract/api'
import { apiError } from '@tessellum/contract/errors'
import { asking, type RouteKey, rights, routes } from '@tessellum/contract/rights'
import { z } from 'zod'

const schemaOf = (of: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...schema } = z.toJSONSchema(of, { io, unrepresentable: 'any', reused: 'inline' }) as Record<
    string,
    unknown
  >
  return schema
}

const json = (schema: object) => ({ 'application/json': { schema } })

function answerOf({ answer }: Described) {
  if (answer === 'pdf') return { 'application/pdf': {} }
  if (answer === 'file') return { 'application/octet-stream': {} }
  if (answer === 'stream') return { 'text/event-stream': {} }
  return json(schemaOf(answer, 'output'))
}

function queryOf(query: z.ZodType | undefined) {
  if (!query) return []
  const { properties = {}, required = [] } = schemaOf(query, 'input') as {
    properties?: Record<string, object>
    required?: string[]
  }
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }))
}

/** Route after route, so that others are answered in between. */
export async function openApi() {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [key, described] of Object.entries(api) as [RouteKey, Described][]) {
    await turn()
    const [method = '', path = ''] = key.split(' ')
    const at = path.replaceAll(/:(\w+)/g, '{$1}')
    const needed: string = routes[key]
    const changes = method !== 'GET'
    const inPath = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }))
    const who =
      needed === 'open'
        ? 'anyone'
        : needed === 'signed-in'
          ? 'anyone signed in'
          : rights[needed as keyof typeof rights].join(', ')
    paths[at] ??= {}
    paths[at][method.toLowerCase()] = {
      summary: described.what,
      description: `For ${who}.`,
      parameters: [
        ...inPath,
        ...queryOf(described.query),
        ...(changes && key !== 'POST /api/sign-in'
          ? [
              {
                name: 'x-csrf-token',
                in: 'header',
                required: true,
                schema: { type: 'string' },
                description: 'From signing in or GET /api/me.',
              },
              {
                name: 'idempotency-key',
                in: 'header',
                required: false,
                schema: { type: 'string', pattern: '^[\\w-]{8,80}$' },
                description:
                  'Makes a request safe to repeat: the same key never acts twice, and goes with one body. Needed for whatever changes stock.',
              },
            ]
          : []),
      ],
      ...(described.body ? { requestBody: { required: true, content: json(schemaOf(described.body, 'input')) } } : {}),
      ...(described.bytes ? { requestBody: { required: true, content: { 'application/octet-stream': {} } } } : {}),
      responses: {
        200: { description: 'Done.', content: answerOf(described) },
        ...(changes && !asking.has(key)
          ? { 204: { description: 'Done. What follows from it could not be told yet: ask again with the same key.' } }
          : {}),
        default: { description: 'Refused, and why.', content: json({ $ref: '#/components/schemas/HttpProblem' }) },
      },
      security: needed === 'open' ? [] : [{ session: [] }],
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Tessellum',
      version: '1',
      description:
        'What the pages of a shop ask of its server. Everything refused has one shape, with a hint how to mend it.',
    },
    paths,
    components: {
      schemas: { HttpProblem: schemaOf(apiError, 'output') },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'tessellum' } },
    },
  }
}
