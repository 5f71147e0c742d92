/** What a colourway gives each role of a pattern, in one size. */
import type { Bead } from '../catalogue/bead'
import { labelledStone } from '../catalogue/stone-size'
import type { Counting } from '../sizing/counting'
import { readMadeSize } from '../sizing/made-size'
import type { KitItem, StockUnit } from './bill'
import { type Pack, unitCost } from './cost'

/** One role's item; `size` "" for every size, or the one size it is for (a stone is another item in each size). */
export interface Choice {
  readonly role: string
  readonly size: string
  readonly itemId: number
  /** Which counts follow its bead. */
  readonly counting: Counting
  /** 0, or absent, for what is chosen; then what may stand in for it, nearest first. */
  readonly rank?: number
}

/** A stock item as a colourway chooses it. */
export interface ChoosableItem {
  readonly id: number
  readonly unit: StockUnit
  readonly category: string
  readonly kind: string
  readonly size: string
  readonly colour: string
  readonly finish: string
  readonly packs: readonly Pack[]
  readonly bead: (Omit<Bead, 'maker'> & { readonly maker?: string | undefined }) | null
}

export interface Chosen<Item> {
  /** Stock items by role, "thread" for the thread. */
  readonly items: Readonly<Record<string, Item>>
  readonly beads: Readonly<Record<string, Bead>>
  /** Where counts do not simply follow the bead. */
  readonly counting: Readonly<Record<string, Counting>>
  /** By role; "stone" is that of the stone in the piece. */
  readonly colours: Readonly<Record<string, string>>
  readonly finishes: Readonly<Record<string, string>>
  readonly kit: Readonly<Record<string, KitItem>>
}

/** What a colourway gives a role in a size: the size's own choice before the one for all sizes. */
function choiceFor<Any extends Choice>(choices: readonly Any[], role: string, size: string): Any | undefined {
  const ofRole = choices.filter((choice) => choice.role === role && (choice.rank ?? 0) === 0)
  const { name } = readMadeSize(size)
  const own = name === '' ? undefined : ofRole.find((choice) => choice.size === name)
  return own ?? ofRole.find((choice) => choice.size === '')
}

/**
 * Choices in which another item is chosen for a role as it is in a size: in place of that size's own choice, where it has one, and otherwise of the
 * one for all sizes. Other sizes keep theirs, and what may stand in for it stays, but for the item itself.
 */
export function withAnother<Other extends Choice>(
  choices: readonly Other[],
  { role, itemId, counting }: Pick<Choice, 'role' | 'itemId' | 'counting'>,
  size: string,
): (Other | Choice)[] {
  const before = choiceFor(choices, role, size)
  const slot = before?.size ?? ''
  return [
    ...choices.filter(
      (choice) => choice !== before && !(choice.role === role && choice.size === slot && choice.itemId === itemId),
    ),
    { role, size: slot, itemId, counting, rank: 0 },
  ]
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
  const counting: Record<string, Counting> = {}
  const colours: Record<string, string> = {}
  const finishes: Record<string, string> = {}
  const kit: Record<string, KitItem> = {}
  for (const role of new Set(choices.map((choice) => choice.role))) {
    const choice = choiceFor(choices, role, size)
    const item = choice && byId.get(choice.itemId)
    if (!item) continue
    chosen[role] = item
    colours[role] = item.colour
    finishes[role] = item.finish
    if (item.category === 'stone') colours.stone ??= item.colour
    const bead = item.bead && asBead(item.bead)
    if (bead) beads[role] = bead
    if (bead && choice.counting !== 'all') counting[role] = choice.counting
    const stone = item.category === 'stone' ? labelledStone(item.kind, item.size) : undefined
    kit[role] = {
      ...(stone ? { stone } : {}),
      id: item.id,
      unit: item.unit,
      unitCost: unitCost(item.packs),
      ...(bead ? { bead, massMg: bead.massMg } : {}),
    }
  }
  return { items: chosen, beads, counting, colours, finishes, kit }
}

/** A bead's figures as they are kept, as the core's bead: without a maker there is no such field. */
export const asBead = ({ maker, ...figures }: NonNullable<ChoosableItem['bead']>): Bead =>
  maker === undefined ? figures : { ...figures, maker }
