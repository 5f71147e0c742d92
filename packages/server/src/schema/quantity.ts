import { bigint } from 'drizzle-orm/pg-core'

/** How much: whole milligrams, pieces or millimetres, as the item is counted. */
export const quantity = (name: string) => bigint(name, { mode: 'number' })
