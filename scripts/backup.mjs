/** `npm run backup -- FILE`: the whole database as PostgreSQL writes it, whether the shop is open or not. */
import { existsSync, renameSync, rmSync } from 'node:fs'
import path from 'node:path'
import { client } from './set-up/client.mjs'
import { startCluster } from './set-up/cluster.mjs'
import { isOpen, onlyOne } from './set-up/only-one.mjs'
import { data, ensureData, given } from './set-up/places.mjs'
import { runMain, Stop, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'

await runMain(async () => {
  const [file] = given
  if (!file) throw new Stop('Name the file: npm run backup -- shop.dump')
  if (existsSync(file)) throw new Stop(`${file} is there already. Name another file.`)
  ensureData()
  // Of a closed shop the folder is taken, so that nobody opens it while its database is started for the backup and stopped again.
  const open = isOpen()
  if (!open && !process.env.DATABASE_URL) await onlyOne('backup')
  const cluster = process.env.DATABASE_URL
    ? undefined
    : await startCluster(path.join(data, 'postgres'), secrets().databasePassword)
  // Under its own name only when it is whole.
  const whole = path.resolve(file)
  const part = `${whole}.part`
  try {
    const url = process.env.DATABASE_URL ?? (await cluster.database('tessellum'))
    await client('pg_dump', ['--format=custom', `--file=${part}`], url)
    renameSync(part, whole)
    say(`Backed up to ${file}.`)
  } finally {
    rmSync(part, { force: true })
    if (!open) await cluster?.stop()
  }
})
