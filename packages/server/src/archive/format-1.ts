/** Archives of format 1: some tables and columns had other names, and a colourway of one batch only was marked in its own row. */
import { archived } from './tables'

type Rows = readonly Record<string, unknown>[]

const formerly: Readonly<Record<string, string>> = { idempotent_request: 'action', audit_entry: 'deed' }

/** Tables by the names they had. */
export const asFormat1 = (tables: readonly string[]): string[] =>
  tables.filter((table) => table !== 'batch_colourway').map((table) => formerly[table] ?? table)

/** @returns tables as they are archived now */
export function fromFormat1(tables: ReadonlyMap<string, Rows>): Map<string, Record<string, unknown>[]> {
  const now = new Map(archived.map((table) => [table, [...(tables.get(formerly[table] ?? table) ?? [])]]))
  now.set(
    'move',
    (tables.get('move') ?? []).map(({ action_key: idempotency_key, ...move }) => ({ ...move, idempotency_key })),
  )
  const versions = tables.get('colourway_version') ?? []
  now.set(
    'colourway_version',
    versions.map(({ batch_id: _, ...version }) => version),
  )
  now.set(
    'batch_colourway',
    versions.flatMap(({ id, batch_id }) => (batch_id === null ? [] : [{ colourway_version_id: id, batch_id }])),
  )
  return now
}
