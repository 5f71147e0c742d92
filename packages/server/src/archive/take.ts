import { createHash, createHmac } from 'node:crypto'
import type { PictureSize } from '@tessellum/contract/pictures'
import { titleOf } from '@tessellum/core/notation/title'
import { writeSheet } from '@tessellum/core/stock/stock-spreadsheet'
import { fileName } from '@tessellum/core/writing/file-name'
import { sql } from 'drizzle-orm'
import JSZip from 'jszip'
import type { Database, Session } from '../database/connect'
import { readPicture } from '../patterns/pictures'
import { sheetItems } from '../stock/import'
import { writeTable } from '../stock/table-file'
import { archived, archiveFormat, archiveVersion, leftOut, type Manifest, pictureAt } from './tables'

export const digestOf = (text: string | Uint8Array) => createHash('sha256').update(text).digest('hex')

/** Over the list of what is in an archive, and so over all of it. */
export const signatureOf = (listed: string, key: string) => createHmac('sha256', key).update(listed).digest('hex')

export async function checksOf(db: Session): Promise<Manifest['checks']> {
  const { rows } = await db.execute<Manifest['checks'] & Record<string, unknown>>(
    sql`select coalesce(sum(on_hand), 0)::float8 as "onHand", coalesce(sum(reserved), 0)::float8 as reserved, count(*) filter (where low)::int as low from item_total`,
  )
  return rows[0] ?? { onHand: 0, reserved: 0, low: 0 }
}

/**
 * The whole shop at one moment, as a ZIP of open formats: every table as JSON, and beside them the patterns as notation and the stock as CSV, for
 * people. No password leaves the shop, not even as a hash.
 *
 * @param key the shop's own, by which it knows its archives again; not signed when empty
 * @param step told how much is done, from 0 to 1
 */
export async function takeArchive(db: Database, key: string, step: (done: number) => void): Promise<Uint8Array> {
  return db.transaction(
    async (tx) => {
      const zip = new JSZip()
      const tables: Record<string, { rows: number; digest: string }> = {}
      for (const [i, table] of archived.entries()) {
        step((0.7 * i) / archived.length)
        const { rows } = await tx.execute<{ row: Record<string, unknown> }>(
          sql`select to_jsonb(each) - string_to_array(${(leftOut[table] ?? []).join(',')}, ',') as row from ${sql.identifier(table)} as each order by 1`,
        )
        // Line by line, so that two archives can be compared.
        const text = `[\n${rows.map(({ row }) => JSON.stringify(row)).join(',\n')}\n]\n`
        zip.file(`tables/${table}.json`, text)
        tables[table] = { rows: rows.length, digest: digestOf(text) }
      }
      const patterns = await tx.execute<{ id: number; source: string }>(sql`select id, source from pattern order by id`)
      for (const { id, source } of patterns.rows)
        zip.file(`patterns/${id}-${fileName(titleOf(source), 'tess')}`, source)
      const pictures = await tx.execute<{ id: number; size: string }>(
        sql`select picture_id as id, size from picture_file order by 1, 2`,
      )
      for (const { id, size } of pictures.rows)
        zip.file(pictureAt(id, size), await readPicture(tx, id, size as PictureSize), { compression: 'STORE' })
      zip.file('stock.csv', await writeTable(writeSheet(await sheetItems(tx)), 'csv', 'Stock'))
      const manifest: Manifest = {
        format: archiveFormat,
        formatVersion: archiveVersion,
        madeAt: new Date().toISOString(),
        tables,
        checks: await checksOf(tx),
      }
      const listed = `${JSON.stringify(manifest, null, 2)}\n`
      zip.file('manifest.json', listed)
      if (key) zip.file('signature.txt', signatureOf(listed, key))
      return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' })
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  )
}
