/**
 * A bead that is short over all drafts: which of their kits are made as planned, and in which something stands in, so that most kits are made and
 * the least of it can be seen. Solved over all lines that take the bead, at once.
 */

import type { ShortagePlan } from '@tessellum/contract/shortage-plan'
import type { Item } from '@tessellum/contract/stock'
import { sparesOf } from '@tessellum/contract/usual-settings'
import { alternativesOf } from '@tessellum/core/kit/alternatives'
import { readMadeSize } from '@tessellum/core/sizing/made-size'
import { itemName } from '@tessellum/core/stock/item-name'
import { visibleChange } from '@tessellum/core/substitute/visible-change'
import { eq } from 'drizzle-orm'
import { choicesOf } from '../colourways/store'
import { notFound } from '../problem'
import { patternVersion } from '../schema/patterns'
import { shopSettings } from '../settings/store'
import type { Shop } from '../shop'
import { identityOf } from '../stock/identity'
import { freeLots, listItems } from '../stock/store'
import { allocationFor } from './allocation'
import { billsFor, cachedBills, itemsIn, type LineBill } from './bills'
import { draftLines, stillToPack } from './drafts'

/** So many stand-ins of each line are tried: each is a variant of every kit for the solver. */
const maxSubstitutes = 4

export async function shortagePlanFor(shop: Shop, itemId: number): Promise<ShortagePlan> {
  const { db, workers } = shop
  const [now] = await listItems(db, [itemId])
  if (!now) throw notFound('item')
  /** Those that are met; the shelf may be long. */
  const items: Item[] = [now]
  const meet = async (ids: readonly number[]) => {
    const unmet = [...new Set(ids)].filter((id) => !items.some((each) => each.id === id))
    items.push(...(await listItems(db, unmet)))
  }
  const settings = await shopSettings(db)
  const all = (await stillToPack(db, await draftLines(db))).filter(({ kits }) => kits > 0)
  const planned = await billsFor(shop, all)
  const takes = (i: number) =>
    planned[i]?.troubles.length === 0 && planned[i]?.bill.some((each) => each.itemId === itemId)
  const lines = all.filter((_, i) => takes(i))
  const choices = await choicesOf(db, [...new Set(lines.map(({ colourwayVersionId }) => colourwayVersionId))])
  await meet([...choices.values()].flat().map((choice) => choice.itemId))
  const bills = await Promise.all(lines.map((line) => withStandIns(line)))
  const lots = await freeLots(db, itemsIn(bills), false)
  const turns = lines.map(({ turn }) => turn)
  const plain = bills.map((bill) => ({ ...bill, ways: bill.ways.slice(0, 1) }))
  const without = await allocationFor(workers, lines, plain, lots, turns)
  const found = await allocationFor(workers, lines, bills, lots, turns)
  return {
    itemId,
    name: itemName(now),
    item: identityOf(now),
    proven: found.proven,
    lines: lines.map(({ id, batchId, batchName, title, colourway, size, kits }, i) => ({
      lineId: id,
      batchId,
      batchName,
      of: [title, size, `in ${colourway}`].filter(Boolean).join(', '),
      wanted: kits,
      without: without.lines[i]?.kits ?? 0,
      asPlanned: found.lines[i]?.variants[0] ?? 0,
      ways: (bills[i]?.ways ?? []).flatMap(({ substitutes, choices: chosen, distance }, w) => {
        const some = found.lines[i]?.variants[w] ?? 0
        const other = items.find((each) => each.id === substitutes[0]?.itemId)
        if (w === 0 || some === 0 || !other) return []
        const roles = substitutes.map(({ role }) => role)
        return [
          {
            kits: some,
            itemId: other.id,
            name: itemName(other),
            item: identityOf(other),
            distance,
            choices: roles.map((role) => ({
              role,
              itemId: other.id,
              counting: chosen.find((each) => each.role === role)?.counting ?? ('all' as const),
            })),
          },
        ]
      }),
    })),
  }

  /** A line's bill as planned, and with each of the beads that could stand in for the one that is short. */
  async function withStandIns(line: (typeof lines)[number]): Promise<LineBill> {
    const [version] = await db.select().from(patternVersion).where(eq(patternVersion.id, line.patternVersionId))
    const { source, sampledRatio: ratio, sampledCount: count } = version as typeof patternVersion.$inferSelect
    const chosen = alternativesOf(choices.get(line.colourwayVersionId) ?? [], line.size)[0]?.choices ?? []
    const roles = chosen
      .filter((each) => each.itemId === itemId && (each.size === '' || each.size === readMadeSize(line.size).name))
      .map(({ role }) => role)
    const kit = {
      source,
      size: line.size,
      thread: { ...settings.thread, sampled: { ratio, count } },
      spares: sparesOf(settings),
    }
    const [first] = roles
    const candidates =
      first === undefined
        ? []
        : await workers.run('substitutes', {
            ...kit,
            choices: chosen.map((each) => ({ ...each, rank: 0 })),
            role: first,
            kits: line.kits,
            most: maxSubstitutes,
          })
    await meet(candidates.map(({ id }) => id))
    const plan = await billed(chosen, [])
    const ways = await Promise.all(
      candidates.map(({ id, counting }) =>
        billed(
          chosen.map((each) => (roles.includes(each.role) ? { ...each, itemId: id, counting } : each)),
          roles.map((role) => ({ role, itemId: id, insteadOf: itemId })),
        ),
      ),
    )
    return {
      bill: [...plan.bill],
      troubles: plan.troubles,
      ways: [plan, ...ways.filter(({ troubles }) => troubles.length === 0)],
    }

    async function billed(with_: typeof chosen, substitutes: LineBill['ways'][number]['substitutes']) {
      const own = with_.map((each) => ({ ...each, rank: 0 }))
      const ids = new Set(own.map((each) => each.itemId))
      const asked = { ...kit, choices: own, items: items.filter(({ id }) => ids.has(id)) }
      const [{ bill, troubles } = { bill: { lines: [] }, troubles: [] }] = await cachedBills(shop, [asked])
      const other = items.find(({ id }) => id === substitutes[0]?.itemId)
      const distance = other ? visibleChange(now as Item, other) * roles.length : 0
      return {
        bill: bill.lines.map((each) => ({ ...each, roles: [...each.roles] })),
        troubles: [...troubles],
        choices: own,
        substitutes,
        distance,
      }
    }
  }
}
