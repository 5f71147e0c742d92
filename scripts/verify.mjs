/** `npm run verify`: whether what is kept is what the ledger adds up to, whether the shop is open or not. */
import path from 'node:path'
import { ensureBuild } from './set-up/build.mjs'
import { startCluster } from './set-up/cluster.mjs'
import { isOpen, onlyOne } from './set-up/only-one.mjs'
import { data, ensureData } from './set-up/places.mjs'
import { runMain, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'
import { verifyShop } from './set-up/server.mjs'

await runMain(async () => {
  ensureData()
  await ensureBuild()
  const open = isOpen()
  if (!open && !process.env.DATABASE_URL) await onlyOne('verification')
  const cluster = process.env.DATABASE_URL
    ? undefined
    : await startCluster(path.join(data, 'postgres'), secrets().databasePassword)
  try {
    const { right, told } = await verifyShop(process.env.DATABASE_URL ?? (await cluster.database('tessellum')))
    say(told)
    if (!right) process.exitCode = 1
  } finally {
    if (!open) await cluster?.stop()
  }
})
