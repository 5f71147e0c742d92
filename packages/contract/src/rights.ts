import { type PersonRole, personRoles } from './roles'

const everybody: readonly PersonRole[] = personRoles

/** Who may do what: the one table of rights. */
export const rights = {
  'patterns.read': everybody,
  'patterns.write': ['owner', 'designer'],
  'samples.log': ['owner', 'designer', 'teacher'],
  'stock.read': everybody,
  'stock.move': ['owner', 'stockroom'],
  'stock.keep': ['owner', 'stockroom'],
  'stock.buy': ['owner', 'designer', 'stockroom'],
  'batches.read': everybody,
  'batches.plan': ['owner', 'designer', 'stockroom'],
  'batches.reserve': ['owner', 'designer', 'stockroom'],
  'batches.pack': ['owner', 'stockroom'],
  'audit.read': ['owner'],
  'classes.read': everybody,
  'classes.keep': ['owner', 'designer', 'teacher'],
  'orders.keep': ['owner', 'designer'],
  'customers.read': ['owner', 'designer', 'teacher', 'counter'],
  'customers.keep': ['owner', 'designer', 'counter'],
  /** All of them at once, as a file, in or out; and to forget one for good. */
  'customers.manage': ['owner'],
  'prices.keep': ['owner', 'stockroom'],
  'sales.keep': ['owner', 'stockroom', 'counter'],
  'costs.keep': ['owner'],
  'settings.keep': ['owner'],
  'archive.take': ['owner'],
  'people.keep': ['owner'],
} as const satisfies Record<string, readonly PersonRole[]>

export type Right = keyof typeof rights

export const mayDo = (roles: readonly PersonRole[], right: Right): boolean =>
  roles.some((role) => (rights[right] as readonly PersonRole[]).includes(role))
