/** The demo shop as a newcomer finds it: nothing in it is broken, unfinished or yet to happen but what is there on purpose. */
import type { Colourway } from '@tessellum/contract/colourways'
import type { Bench } from '@tessellum/contract/diary'
import type { Item } from '@tessellum/contract/stock'
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { billOf } from '@tessellum/core/kit/bill'
import { chosenIn } from '@tessellum/core/kit/choice'
import { type Caller, openShop, type Shop } from './shop'

let shop: Shop
let isaura: Caller
beforeAll(async () => {
  shop = await openShop()
  isaura = await shop.as('isaura')
})
afterAll(() => shop.close())

test('nothing in its records has a time that is yet to come', async () => {
  const { rows: columns } = await shop.pool.query<{ table: string; column: string }>(
    `select table_name as table, column_name as column from information_schema.columns
     where table_schema = 'public' and data_type = 'timestamp with time zone' and column_name <> 'expires_at'`,
  )
  expect(columns.map(({ table, column }) => `${table}.${column}`)).toEqual(
    expect.arrayContaining(['move.at', 'sale.at', 'audit_entry.at']),
  )
  const ahead: string[] = []
  for (const { table, column } of columns) {
    const { rows } = await shop.pool.query(`select count(*)::int as n from "${table}" where "${column}" > now()`)
    if (rows[0].n > 0) ahead.push(`${table}.${column}: ${rows[0].n}`)
  }
  const { rows } = await shop.pool.query('select count(*)::int as n from lot where received_on > current_date')
  expect([ahead, rows[0].n]).toEqual([[], 0])
})

test('each pattern evaluates without an error in each size, and each of its colourways is whole there', async () => {
  const { body: items } = await isaura.ask<Item[]>('GET', '/items')
  const { body: patterns } = await isaura.ask<{ id: number; title: string }[]>('GET', '/patterns')
  const { rows: texts } = await shop.pool.query<{ id: number; source: string }>('select id, source from pattern')
  const wrong: string[] = []
  let looked = 0
  for (const { id, title } of patterns) {
    const source = texts.find((each) => each.id === id)?.source ?? ''
    const { report } = evaluatePattern(source)
    const { body: colourways } = await isaura.ask<Colourway[]>('GET', `/patterns/${id}/colourways`)
    if (colourways.length === 0) wrong.push(`${title} has no colourway`)
    const sizes = report.sizes.length > 0 ? report.sizes : ['']
    for (const { name, choices } of colourways)
      for (const size of sizes) {
        looked++
        const { beads, counting, kit } = chosenIn(choices, size, items)
        const { report } = evaluatePattern(source, { size, beads, counting })
        const { missing, misfits } = billOf(report, kit)
        const errors = report.diagnostics.filter(({ severity }) => severity === 'error')
        for (const each of errors) wrong.push(`${title}, ${size}, ${name}: line ${each.line}: ${each.message}`)
        for (const role of missing) wrong.push(`${title}, ${size}, ${name}: nothing chosen for ${role}`)
        for (const { role } of misfits) wrong.push(`${title}, ${size}, ${name}: the stone of ${role} does not fit`)
      }
  }
  expect(wrong).toEqual([])
  expect(looked).toBeGreaterThan(patterns.length)
})

test('it has a past: sales, an order handed over, classes taught', async () => {
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)
  const { body: sold } = await isaura.ask('GET', `/sales?from=${day(-70)}&to=${day(0)}`)
  expect(sold.sales.length).toBeGreaterThan(20)
  const { rows } = await shop.pool.query(
    `select (select count(*)::int from customer_order where state = 'done' and wanted_on < current_date) as orders,
            (select count(*)::int from class where state = 'taught' and held_on < current_date) as classes`,
  )
  expect(rows[0]).toEqual({ orders: 1, classes: 2 })
})

test('one batch is short and one item runs low, and that is all that is wrong', async () => {
  const { body: bench } = await isaura.ask<Bench>('GET', '/bench')
  const kinds = bench.map(({ kind }) => kind)
  expect(kinds.filter((kind) => kind === 'buy')).toHaveLength(1)
  // Nothing that is still to be done was due before today.
  const today = new Date().toISOString().slice(0, 10)
  expect(bench.filter(({ by }) => by !== null && by < today)).toEqual([])
  const { rows } = await shop.pool.query('select count(*)::int as low from item_total where low')
  expect(rows[0].low).toBe(1)
})
