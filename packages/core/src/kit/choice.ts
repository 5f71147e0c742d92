/** What a colourway gives each role of a pattern, in one size. */
import type { Bead } from '../catalogue/bead'
import type { KitItem, StockUnit } from './bill'

/** One role's item; `size` "" for every size, or the one size it is for (a stone is another item in each size). */
export interface Choice {
  readonly role: string
  readonly size: string
  readonly itemId: number
}

interface ChoosableItem {
  readonly id: number
  readonly unit: StockUnit
  readonly category: string
  readonly colour: string
  readonly bead: (Omit<Bead, 'maker'> & { readonly maker?: string | undefined }) | null
}

export interface Chosen<Item> {
  /** Stock items by role, "thread" for the thread. */
  readonly items: Readonly<Record<string, Item>>
  readonly beads: Readonly<Record<string, Bead>>
  /** By role; "stone" is that of the stone in the piece. */
  readonly colours: Readonly<Record<string, string>>
  readonly kit: Readonly<Record<string, KitItem>>
}

/** The item a colourway gives a role in a size: the size's own choice before the one for all sizes. */
function itemIdFor(choices: readonly Choice[], role: string, size: string): number | undefined {
  const ofRole = choices.filter((choice) => choice.role === role)
  const own = size === '' ? undefined : ofRole.find((choice) => choice.size === size)
  return (own ?? ofRole.find((choice) => choice.size === ''))?.itemId
}

/** Roles whose item is not among `items` are left out; the bill then names them as missing. */
export function chosenIn<Item extends ChoosableItem>(
  choices: readonly Choice[],
  size: string,
  items: readonly Item[],
): Chosen<Item> {
  const byId = new Map(items.map((item) => [item.id, item]))
  const chosen: Record<string, Item> = {}
  const beads: Record<string, Bead> = {}
  const colours: Record<string, string> = {}
  const kit: Record<string, KitItem> = {}
  for (const role of new Set(choices.map((choice) => choice.role))) {
    const item = byId.get(itemIdFor(choices, role, size) ?? -1)
    if (!item) continue
    chosen[role] = item
    colours[role] = item.colour
    if (item.category === 'stone') colours.stone ??= item.colour
    const bead = item.bead && asBead(item.bead)
    if (bead) beads[role] = bead
    kit[role] = { id: item.id, unit: item.unit, ...(bead ? { bead, massMg: bead.massMg } : {}) }
  }
  return { items: chosen, beads, colours, kit }
}

const asBead = ({ maker, ...figures }: NonNullable<ChoosableItem['bead']>): Bead =>
  maker === undefined ? figures : { ...figures, maker }
