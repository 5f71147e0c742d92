/** Requests made from a route's own schemas, mostly fitting and now and then bent. */
import type { Route, RouteKey } from '@tessellum/contract/api'
import fc from 'fast-check'
import { z } from 'zod'

const nasty = fc.constantFrom<unknown>(
  null,
  true,
  0,
  -1,
  1.5,
  2_147_483_647,
  2_147_483_648,
  2 ** 53 + 2,
  1e308,
  -1e308,
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  'x'.repeat(6000),
  '0000-01-01',
  '0001-01-01',
  '9999-12-31',
  '2024-02-30',
  [],
  {},
  [[[[[[]]]]]],
  { toString: 1 },
)

interface Schema {
  readonly type?: string
  readonly enum?: readonly unknown[]
  readonly const?: unknown
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
  readonly allOf?: readonly Schema[]
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly items?: Schema
  readonly prefixItems?: readonly Schema[]
  readonly additionalProperties?: Schema | boolean
  readonly format?: string
  readonly minimum?: number
  readonly maximum?: number
  readonly minLength?: number
  readonly maxLength?: number
}

/** Values that fit a schema, mostly. */
const bent = (schema: Schema): fc.Arbitrary<unknown> =>
  fc.oneof({ weight: 11, arbitrary: fitting(schema) }, { weight: 1, arbitrary: nasty })

function fitting(schema: Schema): fc.Arbitrary<unknown> {
  const any = schema.anyOf ?? schema.oneOf
  if (any) return fc.oneof(...any.map(bent))
  if (schema.allOf) return bent(schema.allOf[0] as Schema)
  if (schema.const !== undefined) return fc.constant(schema.const)
  if (schema.enum) return fc.constantFrom(...schema.enum)
  switch (schema.type) {
    case 'object': {
      const properties = Object.entries(schema.properties ?? {})
      return fc.record(Object.fromEntries(properties.map(([name, each]) => [name, bent(each)])), {
        requiredKeys: properties.map(([name]) => name).filter((name) => schema.required?.includes(name)),
      })
    }
    case 'array':
      return fc.array(bent(schema.items ?? schema.prefixItems?.[0] ?? {}), { maxLength: 3 })
    case 'integer':
    case 'number': {
      const least = Math.max(schema.minimum ?? -3, -1e6)
      const most = Math.floor(Math.min(schema.maximum ?? 2e9, 2e9))
      return fc.oneof(
        fc.integer({ min: Math.ceil(least), max: Math.max(Math.ceil(least), Math.min(12, most)) }),
        fc.integer({ min: Math.ceil(least), max: Math.max(Math.ceil(least), most) }),
      )
    }
    case 'boolean':
      return fc.boolean()
    case 'null':
      return fc.constant(null)
    case 'string':
      if (schema.format === 'date')
        return fc
          .date({ min: new Date(0), max: new Date('2199-01-01'), noInvalidDate: true })
          .map((each) => each.toISOString().slice(0, 10))
      return fc.oneof(
        fc.string({ minLength: schema.minLength ?? 0, maxLength: Math.min(schema.maxLength ?? 30, 30) }),
        fc.constantFrom('A', 'B', 'S', '1', 'pattern X\nring 12A', 'usual', 'roll', 'csv'),
      )
    default:
      return nasty
  }
}

const inPath = fc.oneof(
  { weight: 6, arbitrary: fc.integer({ min: 1, max: 14 }).map(String) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '0',
      '-1',
      '1.5',
      '2147483648',
      '99999999999999999999',
      '%00',
      'a%00',
      '%ff',
      '..%2f..',
      'null',
      'NaN',
      'x'.repeat(3000),
    ),
  },
)

const schemaOf = (of: z.ZodType) =>
  z.toJSONSchema(of, { io: 'input', unrepresentable: 'any', reused: 'inline' }) as Schema

export interface Sent {
  readonly path: string
  readonly query: unknown
  readonly body: unknown
}

export function requests(key: RouteKey, { query, body, bytes }: Route, seed: number, numRuns: number): Sent[] {
  const [, path = ''] = key.split(' ')
  const ids = [...path.matchAll(/:\w+/g)].map(([name]) => name)
  return fc.sample(
    fc.record({
      path: fc
        .tuple(...ids.map(() => inPath))
        .map((given) => ids.reduce((at, id, i) => at.replace(id, given[i] ?? ''), path)),
      query: query ? bent(schemaOf(query)) : fc.constant({}),
      body: body ? bent(schemaOf(body)) : bytes ? fc.string() : fc.constant(undefined),
    }),
    { seed, numRuns },
  )
}

/** A query as it stands in an address. */
export const written = (query: unknown) =>
  typeof query === 'object' && query !== null
    ? new URLSearchParams(
        Object.entries(query).map(([name, value]) => [
          name,
          typeof value === 'string' ? value.replaceAll('\ud800', '') : JSON.stringify(value),
        ]),
      )
    : ''
