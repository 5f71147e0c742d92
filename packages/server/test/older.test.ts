/**
 * Shops of older releases come up whole: each as that release left it, with batches reserved, half packed and closed. A dump for each state that was
 * ever kept; docs/architecture.md says how another is made.
 */
import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { readdirSync } from 'node:fs'
import path from 'node:path'
import type { BatchSummary } from '@tessellum/contract/batches'
import { Client } from 'pg'
import { ledgerOf } from './ledger'
import { packAndClose } from './pack'
import { openShop, type Shop } from './shop'

const postgres = process.env.TEST_POSTGRES ?? ''
const folder = path.join(__dirname, 'older')

async function opened(dump: string): Promise<Shop> {
  const name = `older_${randomUUID().replaceAll('-', '')}`
  const admin = new Client({ connectionString: `${postgres}postgres` })
  await admin.connect()
  await admin.query(`create database ${name} owner tessellum`)
  await admin.end()
  const url = new URL(`${postgres}${name}`)
  const restore = path.join(process.env.TEST_POSTGRES_BIN ?? '', 'pg_restore')
  const args = ['--no-owner', '--role=tessellum', '--exit-on-error', `--dbname=${url.href}`, path.join(folder, dump)]
  execFileSync(restore, args)
  url.username = 'tessellum'
  const env = { ...process.env, DATABASE_URL: url.href, DEMO_PASSWORD: 'of no use: there are people already' }
  execFileSync(process.execPath, [path.join(__dirname, '../dist/set-up.js')], { env })
  const shop = await openShop(undefined, {}, name)
  // A shop has passwords of its own: everybody gets the one of the tests.
  const template = new Client({ connectionString: `${postgres}shop` })
  await template.connect()
  const { rows } = await template.query('select password_hash from person limit 1')
  await template.end()
  await shop.pool.query('update person set password_hash = $1', [rows[0].password_hash])
  return shop
}

test.each(readdirSync(folder))('%s comes up whole, and what was under way is finished', async (dump) => {
  const shop = await opened(dump)
  try {
    await ledgerOf(shop.pool)
    const odile = await shop.as('odile')
    const states = async () => {
      const { body } = await odile.ask<BatchSummary[]>('GET', '/batches')
      return Object.fromEntries(body.map(({ id, state }) => [id, state]))
    }
    const before = await states()
    // What is under way is finished; of plans only those that these shops had reserved, which the oldest has as plans again.
    for (const [id, state] of Object.entries(before))
      if (['reserved', 'packing', 'packed'].includes(state) || ['1', '2'].includes(id))
        await packAndClose(odile, Number(id))
    // The two that every one of these shops had reserved are done, and so is what was promised to them.
    const after = await states()
    expect([after['1'], after['2']]).toEqual(['closed', 'closed'])
    await ledgerOf(shop.pool)
    for (const page of ['/shelf', '/audit', '/batches', '/patterns/1', '/people'])
      expect([page, (await (await shop.as('isaura')).ask('GET', page)).status]).toEqual([page, 200])
  } finally {
    await shop.close()
  }
})
