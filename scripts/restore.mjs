/** `npm run restore -- FILE`: puts a backup or an archive of the whole shop into an empty shop; with anything wrong in it, nothing is changed. */
import { existsSync } from 'node:fs'
import path from 'node:path'
import { ensureBuild } from './set-up/build.mjs'
import { startCluster } from './set-up/cluster.mjs'
import { ensurePackages, postgresBin } from './set-up/debian.mjs'
import { ensureDependencies } from './set-up/dependencies.mjs'
import { onlyOne } from './set-up/only-one.mjs'
import { data, ensureData } from './set-up/places.mjs'
import { must, run } from './set-up/run.mjs'
import { runMain, Stop, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'
import { restoreShop } from './set-up/server.mjs'

await runMain(async () => {
  const [file] = process.argv.slice(2)
  if (!file || !existsSync(file)) throw new Stop('Name a file that is there: npm run restore -- shop.zip')
  ensureData()
  onlyOne()
  await ensurePackages(process.env.DATABASE_URL ? [] : ['postgresql'])
  await ensureDependencies()
  await ensureBuild()
  const keys = secrets()
  const cluster = process.env.DATABASE_URL
    ? undefined
    : await startCluster(path.join(data, 'postgres'), keys.databasePassword)
  try {
    const url = process.env.DATABASE_URL ?? (await cluster.database('tessellum'))
    const { output } = await run(`${postgresBin()}/psql`, [
      '-X',
      '-A',
      '-t',
      '-c',
      `select to_regclass('public.person')`,
      url,
    ])
    const begun = output.includes('person')
    if (file.endsWith('.zip')) await restoreShop(url, path.resolve(file), keys.demoPassword)
    else {
      if (begun)
        throw new Stop(
          'This shop is begun already. Put a backup into a new one: TESSELLUM_DATA=another-folder npm run restore -- FILE',
        )
      await must(`${postgresBin()}/pg_restore`, [
        '--exit-on-error',
        '--single-transaction',
        '--no-owner',
        `--dbname=${url}`,
        path.resolve(file),
      ])
    }
    say(
      `Put back from ${file}.${file.endsWith('.zip') ? ` Everybody signs in with ${keys.demoPassword} at first.` : ''} "npm start" opens it.`,
    )
  } finally {
    await cluster?.stop()
  }
})
