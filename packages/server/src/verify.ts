/** `npm run verify`: what is kept against what the ledger says; ends with 1 where something is wrong. */
import pg from 'pg'
import { table, verify } from './verify/verify'

const client = new pg.Client({ connectionString: process.env.DATABASE_URL })
await client.connect()
try {
  const found = await verify(client)
  process.stdout.write(`${table(found)}\n`)
  process.exitCode = found.every(({ wrong }) => wrong.length === 0) ? 0 : 1
} finally {
  await client.end()
}
