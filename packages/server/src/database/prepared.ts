import { fillPlaceholders, type SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import type { QueryResultRow } from 'pg'
import type { Database, Session } from './connect'

/**
 * A statement that the database parses and plans once for each connection, and not at every request: for the few that are asked most.
 *
 * @param name of its own in the whole server
 * @param query with `sql.placeholder(name)` for each value, and the type of each said by the statement
 */
export function prepared<Values extends object, Row extends QueryResultRow>(name: string, query: SQL) {
  const { sql: text, params } = new PgDialect().sqlToQuery(query)
  return async ({ $client }: Pick<Database, '$client'>, values: Values): Promise<Row[]> => {
    const { rows } = await $client.query<Row>({
      name,
      text,
      values: fillPlaceholders(params, values as Record<string, unknown>),
    })
    return rows
  }
}

/**
 * A prepared query of the builder's, built once for each database or transaction that asks it.
 *
 * @param prepare ends in `prepare(name)`, with a name of its own in the whole server
 */
export function preparedQuery<Query>(prepare: (db: Session) => Query): (db: Session) => Query {
  const known = new WeakMap<Session, Query>()
  return (db) => {
    const query = known.get(db) ?? prepare(db)
    known.set(db, query)
    return query
  }
}
