import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import JSZip from 'jszip'
import { Client } from 'pg'
import { archivedSince } from '../src/archive/tables'
import { ledgerOf } from './ledger'
import { Caller, emptyDatabase, openShop, password, type Shop } from './shop'

const postgres = process.env.TEST_POSTGRES ?? ''
const folder = mkdtempSync(path.join(tmpdir(), 'tessellum-archive-'))
let shop: Shop
let taken: Uint8Array
beforeAll(async () => {
  shop = await openShop()
  taken = await take(shop)
})
afterAll(() => shop.close())

async function take(from: Shop): Promise<Uint8Array> {
  const isaura = await from.as('isaura')
  const response = await fetch(`${from.base}/api/archive`, { headers: { cookie: isaura.cookie } })
  return new Uint8Array(await response.arrayBuffer())
}

/** A database of its own, empty, and what putting an archive into it says. */
async function restore(bytes: Uint8Array) {
  const name = await emptyDatabase()
  const file = path.join(folder, `${name}.zip`)
  writeFileSync(file, bytes)
  const url = new URL(`${postgres}${name}`)
  const { code, said } = await new Promise<{ code: number; said: string }>((done) => {
    const env = {
      ...process.env,
      DATABASE_URL: url.href,
      DEMO_PASSWORD: password,
      ARCHIVE: file,
      ARCHIVE_KEY: 'a key for the tests only',
    }
    execFile(process.execPath, [path.join(__dirname, '../dist/set-up.js')], { env }, (error, out, wrong) =>
      done({ code: error ? Number(error.code) : 0, said: `${out}${wrong}` }),
    )
  })
  const client = new Client({ connectionString: url.href })
  await client.connect()
  const { rows } = await client.query('select count(*)::int as people from person')
  await client.end()
  return { name, url, code, said, people: rows[0].people as number }
}

const tablesOf = async (bytes: Uint8Array) => {
  const { tables, checks } = JSON.parse(
    (await (await JSZip.loadAsync(bytes)).file('manifest.json')?.async('string')) ?? '{}',
  )
  const { audit_entry: _, ...rest } = tables
  return { tables: rest, checks }
}

test('put back into an empty shop, everything is as it was, and the shop goes on', async () => {
  const { name, code, said } = await restore(taken)
  expect([code, said]).toEqual([0, 'archive put back\n'])
  const again = await openShop(undefined, {}, name)
  await ledgerOf(again.pool)
  expect(await tablesOf(await take(again))).toEqual(await tablesOf(taken))
  const odile = await again.as('odile')
  const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 2 }]
  const { body } = await odile.ask('POST', '/batches', { name: 'After all', dueOn: '2027-03-01', lines })
  expect((await odile.ask('POST', `/batches/${body.id}/reserve`, {})).body.state).toBe('reserved')
  await again.close()
})

/** Tables that there were not then: of an older archive they are empty. */
const later = Object.keys(archivedSince)

/** What names customers on record. */
const customersIn = ['customer_order', 'sale', 'booking']

test('an archive of format 1 is put back under the names of today', async () => {
  const odile = await shop.as('odile')
  const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 2 }]
  const { body } = await odile.ask('POST', '/batches', { name: 'Greener', dueOn: '2027-03-01', lines })
  await odile.ask('POST', `/batches/${body.id}/lines/1/substitute`, { role: 'A', itemId: 1 })
  const zip = await JSZip.loadAsync(await take(shop))
  const manifest = JSON.parse((await zip.file('manifest.json')?.async('string')) ?? '{}')
  const tables = Object.keys(manifest.tables)
  const rows = new Map<string, Record<string, unknown>[]>()
  for (const table of tables)
    rows.set(table, JSON.parse((await zip.file(`tables/${table}.json`)?.async('string')) ?? '[]'))
  const own = rows.get('batch_colourway') ?? []
  expect(own.length).toBeGreaterThan(0)
  for (const version of rows.get('colourway_version') ?? [])
    version.batch_id = own.find(({ colourway_version_id: id }) => id === version.id)?.batch_id ?? null
  for (const move of rows.get('move') ?? []) {
    move.action_key = move.idempotency_key
    delete move.idempotency_key
    // Sales were not kept then, only what left the shelf.
    move.sale_line_id = null
  }
  for (const each of rows.get('person') ?? []) {
    each.role = (each.roles as string[])[0]
    delete each.roles
  }
  // Nobody was a customer on record then.
  for (const table of customersIn) for (const row of rows.get(table) ?? []) row.customer_id = null
  rows.set('action', rows.get('idempotent_request') ?? [])
  rows.set('deed', rows.get('audit_entry') ?? [])
  const before = new JSZip()
  manifest.formatVersion = 1
  manifest.tables = {}
  for (const [table, each] of rows) {
    if (['batch_colourway', ...later, 'idempotent_request', 'audit_entry'].includes(table)) continue
    const text = JSON.stringify(each)
    before.file(`tables/${table}.json`, text)
    manifest.tables[table] = { rows: each.length, digest: createHash('sha256').update(text).digest('hex') }
  }
  before.file('manifest.json', JSON.stringify(manifest))
  const { name, code, said } = await restore(await before.generateAsync({ type: 'uint8array' }))
  expect([code, said]).toEqual([0, expect.any(String)])
  const again = await openShop(undefined, {}, name)
  await ledgerOf(again.pool)
  const { tables: now } = await tablesOf(await take(again))
  await shop.pool.query(customersIn.map((table) => `update ${table} set customer_id = null`).join(';'))
  const same = (await tablesOf(await take(shop))).tables
  for (const table of ['person', 'move', ...later]) delete same[table]
  expect(now).toMatchObject(same)
  // All of a move but the sale that it belongs to.
  const moves = async ({ pool }: Shop) =>
    (await pool.query("select md5(string_agg((to_jsonb(move) - 'sale_line_id')::text, ',' order by id)) from move"))
      .rows
  expect(await moves(again)).toEqual(await moves(shop))
  await again.close()
})

test('no password leaves the shop, and people can read what is in it', async () => {
  const zip = await JSZip.loadAsync(taken)
  for (const file of Object.values(zip.files)) expect(await file.async('string')).not.toContain('argon2')
  expect(Object.keys(zip.files)).toEqual(expect.arrayContaining(['stock.csv', 'patterns/1-Windlass-pendant.tess']))
  expect((await (await shop.as('odile')).ask('GET', '/archive')).status).toBe(403)
})

test('with a role changed in it and its sums worked out again, only the owner comes back', async () => {
  const zip = await JSZip.loadAsync(taken)
  const people = ((await zip.file('tables/person.json')?.async('string')) ?? '').replace(
    '"roles":["teacher"]',
    '"roles":["owner"]',
  )
  const manifest = JSON.parse((await zip.file('manifest.json')?.async('string')) ?? '{}')
  manifest.tables.person.digest = createHash('sha256').update(people).digest('hex')
  zip.file('tables/person.json', people)
  zip.file('manifest.json', `${JSON.stringify(manifest, null, 2)}\n`)
  const { name, code, said } = await restore(await zip.generateAsync({ type: 'uint8array' }))
  expect([code, said]).toEqual([0, expect.stringContaining('Only Isaura')])
  const again = await openShop(undefined, {}, name)
  expect((await new Caller(again.base).signIn('corin')).body).toMatchObject({ code: 'disabled' })
  const isaura = await again.as('isaura')
  expect(
    (await isaura.ask('GET', '/people')).body.filter(({ disabled }: { disabled: boolean }) => !disabled),
  ).toHaveLength(1)
  await again.close()
})

test('of tables that do not fit together one sentence is told', async () => {
  const zip = await JSZip.loadAsync(taken)
  const lots = ((await zip.file('tables/lot.json')?.async('string')) ?? '').replace(/"item_id":\d+/, '"item_id":987654')
  const manifest = JSON.parse((await zip.file('manifest.json')?.async('string')) ?? '{}')
  manifest.tables.lot.digest = createHash('sha256').update(lots).digest('hex')
  zip.file('tables/lot.json', lots)
  zip.file('manifest.json', JSON.stringify(manifest))
  const { code, said, people } = await restore(await zip.generateAsync({ type: 'uint8array' }))
  expect([code, people]).toEqual([2, 0])
  expect(said).toMatch(/^Its tables do not fit together: .{10,400}\n$/)
})

test('cut short, altered or incomplete it is refused whole', async () => {
  const altered = await JSZip.loadAsync(taken)
  altered.file(
    'tables/pack.json',
    ((await altered.file('tables/pack.json')?.async('string')) ?? '').replace('"price":360', '"price":36'),
  )
  const without = await JSZip.loadAsync(taken)
  without.remove('tables/move.json')
  for (const [bytes, message] of [
    [taken.slice(0, taken.length / 2), 'cut short'],
    [await altered.generateAsync({ type: 'uint8array' }), 'pack'],
    [await without.generateAsync({ type: 'uint8array' }), 'lacks its table "move"'],
  ] as const) {
    const { code, said, people } = await restore(bytes)
    expect([code, said, people]).toEqual([2, expect.stringContaining(message), 0])
  }
})
