import type { PersonRole } from './people'

/** Who may do what: the one table of rights. */
export const rights = {
  'patterns.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'patterns.write': ['owner', 'designer'],
  'samples.log': ['owner', 'designer', 'teacher'],
  'stock.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'stock.move': ['owner', 'stockroom'],
  'batches.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'batches.plan': ['owner', 'designer', 'stockroom'],
  'batches.reserve': ['owner', 'designer', 'stockroom'],
  'batches.pack': ['owner', 'stockroom'],
} as const satisfies Record<string, readonly PersonRole[]>

export type Right = keyof typeof rights

/**
 * Every route there is, with the right it asks for: "open" to anyone, "signed-in" to anyone known.
 * The server refuses to mount a route that is not in this table, and a test walks it with every role.
 */
export const routes = {
  'GET /api/health': 'open',
  'POST /api/sign-in': 'open',
  'GET /api/me': 'signed-in',
  'POST /api/sign-out': 'signed-in',
  'GET /api/changes': 'signed-in',

  'GET /api/patterns': 'patterns.read',
  'POST /api/patterns': 'patterns.write',
  'GET /api/patterns/:id': 'patterns.read',
  'PUT /api/patterns/:id/draft': 'patterns.write',
  'POST /api/patterns/:id/versions': 'patterns.write',
  'GET /api/patterns/:id/versions/:number': 'patterns.read',
  'GET /api/patterns/:id/versions/:number/carriers': 'patterns.read',
  'GET /api/patterns/:id/words': 'patterns.read',
  'PUT /api/patterns/:id/words': 'patterns.write',
  'GET /api/patterns/:id/edition': 'patterns.read',
  'GET /api/patterns/:id/document.pdf': 'patterns.read',
  'GET /api/patterns/:id/pattern.json': 'patterns.read',
  'GET /api/patterns/:id/samples': 'patterns.read',
  'POST /api/patterns/:id/samples': 'samples.log',

  'GET /api/patterns/:id/colourways': 'patterns.read',
  'POST /api/patterns/:id/colourways': 'patterns.write',
  'PUT /api/colourways/:id': 'patterns.write',
  'GET /api/colourways/:id/versions/:number': 'patterns.read',

  'GET /api/items': 'stock.read',
  'GET /api/items/:id': 'stock.read',
  'POST /api/lots/:id/moves': 'stock.move',
  'POST /api/items/:id/lots': 'stock.move',
  'POST /api/moves/:id/reverse': 'stock.move',
  'GET /api/buy-list': 'batches.read',

  'GET /api/batches': 'batches.read',
  'POST /api/batches': 'batches.plan',
  'POST /api/batches/outlook': 'batches.plan',
  'GET /api/batches/:id': 'batches.read',
  'PUT /api/batches/:id/lines': 'batches.plan',
  'POST /api/batches/:id/lines/:line/substitute': 'batches.plan',
  'POST /api/batches/:id/reserve': 'batches.reserve',
  'POST /api/batches/:id/release': 'batches.reserve',
  'POST /api/batches/:id/cancel': 'batches.plan',
  'GET /api/batches/:id/packing': 'batches.read',
  'GET /api/scale': 'batches.pack',
  'POST /api/scale/zero': 'batches.pack',
  'GET /api/stand-ins': 'signed-in',
  'POST /api/stand-ins/scale': 'batches.pack',
  'PUT /api/batches/:id/bags': 'batches.pack',
  'POST /api/batches/:id/bags/empty': 'batches.pack',
  'POST /api/batches/:id/close': 'batches.pack',
} as const satisfies Record<string, Right | 'open' | 'signed-in'>

export type RouteKey = keyof typeof routes
