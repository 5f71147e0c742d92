import { customType } from 'drizzle-orm/pg-core'

/** A file, as it is. */
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
