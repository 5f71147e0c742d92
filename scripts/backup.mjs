/** `npm run backup -- FILE`: the whole database as PostgreSQL writes it, whether the shop is open or not. */
import { existsSync } from 'node:fs'
import path from 'node:path'
import { startCluster } from './set-up/cluster.mjs'
import { postgresBin } from './set-up/debian.mjs'
import { isOpen } from './set-up/only-one.mjs'
import { data } from './set-up/places.mjs'
import { must } from './set-up/run.mjs'
import { runMain, Stop, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'

await runMain(async () => {
  const [file] = process.argv.slice(2)
  if (!file) throw new Stop('Name the file: npm run backup -- shop.dump')
  if (existsSync(file)) throw new Stop(`${file} is there already. Name another file.`)
  const open = isOpen()
  const cluster = process.env.DATABASE_URL
    ? undefined
    : await startCluster(path.join(data, 'postgres'), secrets().databasePassword)
  try {
    const url = process.env.DATABASE_URL ?? (await cluster.database('tessellum'))
    await must(`${postgresBin()}/pg_dump`, ['--format=custom', `--file=${path.resolve(file)}`, url])
    say(`Backed up to ${file}.`)
  } finally {
    if (!open) await cluster?.stop()
  }
})
