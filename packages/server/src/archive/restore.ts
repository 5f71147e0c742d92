/** A whole-shop archive put back into an empty shop: all of it, found equal, or nothing. */
import { sql } from 'drizzle-orm'
import JSZip from 'jszip'
import { z } from 'zod'
import type { Database } from '../database/connect'
import { describeError } from '../http/describe'
import { hashPassword } from '../people/passwords'
import { asFormat1, fromFormat1 } from './format-1'
import { fromFormat2 } from './format-2'
import { archived, archivedSince, archiveFormat, archiveVersion, pictureAt } from './tables'
import { checksOf, digestOf, signatureOf } from './take'

/** What is wrong with an archive, in words for whoever has it. Nothing has been changed. */
export class BadArchive extends Error {}

const manifest = z.object({
  format: z.literal(archiveFormat),
  formatVersion: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(archiveVersion)]),
  tables: z.record(z.string(), z.object({ rows: z.number(), digest: z.string() })),
  checks: z.object({ onHand: z.number(), reserved: z.number(), low: z.number() }),
})

/** So many rows in one statement; of pictures, which may be megabytes each, only a few. */
const maxAtOnce = 20_000
const maxPicturesAtOnce = 8

async function open(bytes: Uint8Array, key: string) {
  const zip = await JSZip.loadAsync(bytes).catch(() => {
    throw new BadArchive('This is no archive, or it is cut short.')
  })
  const text = await zip.file('manifest.json')?.async('string')
  let read: unknown
  try {
    read = JSON.parse(text ?? '')
  } catch {
    throw new BadArchive('The archive has no list of what is in it.')
  }
  const known = manifest.safeParse(read)
  if (!known.success) throw new BadArchive('This archive is of another program, or of another version of this one.')
  const tables = new Map<string, Record<string, unknown>[]>()
  const { formatVersion } = known.data
  const held = archived.filter((table) => (archivedSince[table] ?? 1) <= formatVersion)
  for (const table of formatVersion === 1 ? asFormat1(held) : held) {
    const listed = known.data.tables[table]
    const content = await zip.file(`tables/${table}.json`)?.async('string')
    if (!listed || content === undefined) throw new BadArchive(`The archive lacks its table "${table}".`)
    if (digestOf(content) !== listed.digest)
      throw new BadArchive(`The table "${table}" has been altered since the archive was taken.`)
    const rows: unknown = JSON.parse(content)
    if (!Array.isArray(rows) || rows.length !== listed.rows) throw new BadArchive(`The table "${table}" is not whole.`)
    if (table === 'picture_file') for (const row of rows) row.bytes = await pictureIn(zip, row)
    tables.set(table, rows)
  }
  const signature = (await zip.file('signature.txt')?.async('string')) ?? ''
  const ours = key !== '' && signature === signatureOf(text ?? '', key)
  return {
    tables: asToday(formatVersion, tables),
    checks: known.data.checks,
    ours,
  }
}

/** As the records read it from text. */
async function pictureIn(zip: JSZip, row: Record<string, unknown>): Promise<string> {
  const at = pictureAt(Number(row.picture_id), String(row.size))
  const bytes = await zip.file(at)?.async('nodebuffer')
  if (!bytes) throw new BadArchive(`The archive lacks the picture "${at}".`)
  if (digestOf(bytes) !== row.digest)
    throw new BadArchive(`The picture "${at}" has been altered since the archive was taken.`)
  return `\\x${bytes.toString('hex')}`
}

/** The tables of an older format, as they are archived now. */
function asToday(format: 1 | 2 | 3 | 4 | 5, tables: Map<string, Record<string, unknown>[]>) {
  const then = format === 1 ? fromFormat1(tables) : tables
  return format >= 3 ? then : fromFormat2(then)
}

/**
 * Of an archive that another shop has signed, or nobody, anybody may have changed who may do what: only its owner can sign in at first, and lets the
 * others in again.
 *
 * @param password everybody's, to sign in and begin with: an archive holds none
 * @param key the shop's own, by which it knows its archives
 * @returns who may sign in, where that is not everybody as before
 * @throws BadArchive when it is cut short, altered, or does not add up to what it was
 */
export async function restoreArchive(
  db: Database,
  bytes: Uint8Array,
  password: string,
  key: string,
): Promise<string | undefined> {
  const { tables, checks, ours } = await open(bytes, key)
  const passwordHash = await hashPassword(password)
  const putBack = db.transaction(async (tx) => {
    const { rows: people } = await tx.execute(sql`select 1 from person limit 1`)
    if (people.length > 0) throw new BadArchive('This shop is not empty. An archive is put back into an empty one.')
    // Moves are replayed in the order of their ids, which need not be quite the order in which they came to be: only the end must hold.
    const { rows: rules } = await tx.execute<{ name: string; rule: string }>(
      sql`select conname as name, pg_get_constraintdef(oid) as rule from pg_constraint where conrelid = 'balance'::regclass and contype = 'c'`,
    )
    for (const { name } of rules) await tx.execute(sql`alter table balance drop constraint ${sql.identifier(name)}`)
    for (const table of archived) {
      const rows = tables.get(table) ?? []
      const whole: Record<string, unknown>[] =
        table === 'person' ? rows.map((row) => ({ ...row, password_hash: passwordHash })) : rows
      const ordered = typeof whole[0]?.id === 'number' ? [...whole].sort((a, b) => Number(a.id) - Number(b.id)) : whole
      // What a table has got since the archive was taken is as it is by default.
      const columns = sql.join(
        Object.keys(ordered[0] ?? {}).map((name) => sql.identifier(name)),
        sql`, `,
      )
      const many = table === 'picture_file' ? maxPicturesAtOnce : maxAtOnce
      for (let at = 0; at < ordered.length; at += many)
        await tx.execute(
          sql`insert into ${sql.identifier(table)} (${columns}) overriding system value select ${columns} from jsonb_populate_recordset(null::${sql.identifier(table)}, ${JSON.stringify(ordered.slice(at, at + many))}::jsonb)`,
        )
      if (typeof whole[0]?.id === 'number' && !['cost_setting', 'shop_setting', 'shop_logo'].includes(table))
        await tx.execute(
          sql`select setval(pg_get_serial_sequence(${`public.${table}`}, 'id'), (select max(id) from ${sql.identifier(table)}))`,
        )
    }
    for (const { name, rule } of rules)
      await tx.execute(sql`alter table balance add constraint ${sql.identifier(name)} ${sql.raw(rule)}`)
    if (!ours)
      await tx.execute(
        sql`update person set disabled_at = now() where id <> (select min(id) from person where 'owner' = any(roles)) and disabled_at is null`,
      )
    const found = await checksOf(tx)
    if (JSON.stringify(found) !== JSON.stringify(checks))
      throw new BadArchive(
        `The ledger adds up to ${JSON.stringify(found)}, and the archive says ${JSON.stringify(checks)}.`,
      )
  })
  await putBack.catch((error: unknown) => {
    if (error instanceof BadArchive) throw error
    throw new BadArchive(`Its tables do not fit together: ${describeError(error).message}.`)
  })
  if (ours) return undefined
  const owner = (tables.get('person') as { id: number; roles: string[]; full_name: string }[])
    .filter(({ roles }) => roles.includes('owner'))
    .sort((a, b) => a.id - b.id)[0]
  return owner?.full_name ?? 'nobody'
}
