/** `npm run restore -- FILE`: puts a backup or an archive of the whole shop into an empty shop; with anything wrong in it, nothing is changed. */
import { existsSync } from 'node:fs'
import path from 'node:path'
import { ensureBuild } from './set-up/build.mjs'
import { ask, client } from './set-up/client.mjs'
import { startCluster } from './set-up/cluster.mjs'
import { ensurePackages } from './set-up/debian.mjs'
import { ensureDependencies } from './set-up/dependencies.mjs'
import { onlyOne } from './set-up/only-one.mjs'
import { data, ensureData, given } from './set-up/places.mjs'
import { runMain, Stop, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'
import { restoreShop, verifyShop } from './set-up/server.mjs'

await runMain(async () => {
  const [file] = given
  if (!file || !existsSync(file)) throw new Stop('Name a file that is there: npm run restore -- shop.zip')
  ensureData()
  await onlyOne('restore')
  await ensurePackages(process.env.DATABASE_URL ? [] : ['postgresql'])
  await ensureDependencies()
  await ensureBuild()
  const keys = secrets()
  const cluster = process.env.DATABASE_URL
    ? undefined
    : await startCluster(path.join(data, 'postgres'), keys.databasePassword)
  try {
    const url = process.env.DATABASE_URL ?? (await cluster.database('tessellum'))
    const begun = (await ask(`select to_regclass('public.person')`, url)).includes('person')
    let told = ''
    if (file.endsWith('.zip')) told = await restoreShop(url, path.resolve(file), keys.demoPassword, keys.archiveKey)
    else {
      if (begun)
        throw new Stop(
          'This shop is begun already. Put a backup into a new one: TESSELLUM_DATA=another-folder npm run restore -- FILE',
        )
      await putBack(path.resolve(file), url)
    }
    const { right, told: verified } = await verifyShop(url)
    say(verified)
    if (!right) {
      process.exitCode = 1
      say('Something in it does not add up: see above. It has been put back all the same.')
    }
    say(
      `Put back from ${file}.${file.endsWith('.zip') ? ` Whoever signs in does so with ${keys.demoPassword} at first. ${told}` : ''} "npm start" opens it.`,
    )
  } finally {
    await cluster?.stop()
  }
})

/** All of it or nothing; of what is wrong with a file, one line is enough to know. */
async function putBack(file, url) {
  const database = decodeURIComponent(new URL(url).pathname.slice(1))
  const args = ['--exit-on-error', '--single-transaction', '--no-owner', `--dbname=${database}`, file]
  await client('pg_restore', args, url).catch(({ message }) => {
    const line = message.split('\n').find((each) => each.includes('error:')) ?? ''
    throw new Stop(
      `${path.basename(file)} is no whole backup, and nothing has been changed. ${line.replace(/^.*error: /, '').slice(0, 200)}`,
    )
  })
}
