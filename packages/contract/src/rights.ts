import type { PersonRole } from './people'

/** Who may do what: the one table of rights. */
export const rights = {
  'patterns.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'patterns.write': ['owner', 'designer'],
  'samples.log': ['owner', 'designer', 'teacher'],
  'stock.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'stock.move': ['owner', 'stockroom'],
  'stock.keep': ['owner', 'stockroom'],
  'stock.buy': ['owner', 'designer', 'stockroom'],
  'batches.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'batches.plan': ['owner', 'designer', 'stockroom'],
  'batches.reserve': ['owner', 'designer', 'stockroom'],
  'batches.pack': ['owner', 'stockroom'],
  'audit.read': ['owner'],
  'classes.read': ['owner', 'designer', 'stockroom', 'teacher'],
  'classes.keep': ['owner', 'designer', 'teacher'],
  'orders.keep': ['owner', 'designer'],
  'costs.keep': ['owner'],
  'settings.keep': ['owner'],
  'archive.take': ['owner'],
  'people.keep': ['owner'],
} as const satisfies Record<string, readonly PersonRole[]>

export type Right = keyof typeof rights

export const mayDo = (roles: readonly PersonRole[], right: Right): boolean =>
  roles.some((role) => (rights[right] as readonly PersonRole[]).includes(role))
