/** What the command bar knows: places, things to do, and what the shop has by name. */
import type { ListedBatch } from '@tessellum/contract/batches'
import type { Right } from '@tessellum/contract/rights'
import { parts } from '../settings/parts'
import { places } from './places'

export interface Command {
  readonly label: string
  readonly what: 'place' | 'action' | 'pattern' | 'batch' | 'item' | 'customer'
  /** The page it opens. */
  readonly to: string
  /** What it does before; of the batch with this number. */
  readonly reserves?: number
}

const action = (label: string, to: string): Command => ({ label, what: 'action', to })

interface Known {
  readonly patterns: readonly { readonly id: number; readonly title: string }[]
  readonly batches: readonly Pick<ListedBatch, 'id' | 'name' | 'state'>[]
}

/** @param may what the person signed in may do: nothing else is offered */
export function commandsOf(may: (right: Right) => boolean, { patterns, batches }: Known): Command[] {
  const where = (right: Right, ...commands: readonly Command[]) => (may(right) ? commands : [])
  return [
    ...places.map(({ label, path }): Command => ({ label, what: 'place', to: path })),
    ...where('batches.plan', action('Plan a batch', '/kits/plan'), action('How many can I make?', '/kits/make')),
    action('What to buy', '/kits/buy'),
    action('Orders', '/diary/orders'),
    action('Suppliers', '/suppliers'),
    action('Price list', '/counter/prices'),
    ...where('classes.keep', action('Offer a class', '/diary/classes/new')),
    ...where(
      'stock.move',
      action('Count a place', '/stock/count'),
      action('Files of stock', '/stock/files'),
      action('Simulated devices', '/stand-ins'),
    ),
    ...where('customers.read', action('Customers', '/customers')),
    ...where('sales.keep', action('Counter', '/counter')),
    action('Your account', '/account'),
    ...Object.values(parts).map(({ name, title }) => action(`Settings: ${title}`, `/settings/${name}`)),
    action('Settings: Costs', '/settings/costs'),
    ...where('people.keep', action('People', '/people')),
    ...where('audit.read', action('Activity', '/audit')),
    ...patterns.map(({ id, title }): Command => ({ label: title, what: 'pattern', to: `/patterns/${id}` })),
    ...batches.flatMap(({ id, name, state }): Command[] => [
      { label: name, what: 'batch', to: `/kits/${id}` },
      ...(state === 'draft'
        ? where('batches.reserve', { ...action(`Reserve ${name}`, `/kits/${id}`), reserves: id })
        : []),
      ...(state === 'reserved' || state === 'packing'
        ? where('batches.pack', action(`Pack ${name}`, `/kits/${id}/pack`))
        : []),
    ]),
  ]
}

/** Those that have every word that is typed, in whatever order. */
export function matching(commands: readonly Command[], typed: string): readonly Command[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  return commands.filter(({ label, what }) => words.every((word) => `${label} ${what}`.toLowerCase().includes(word)))
}
