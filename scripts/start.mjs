/** `npm start`: everything from a fresh checkout to a shop that answers. See the README. */
import { rmSync } from 'node:fs'
import path from 'node:path'
import { ensureBuild } from './set-up/build.mjs'
import { isFree, removeCluster, startCluster } from './set-up/cluster.mjs'
import { ensurePackages } from './set-up/debian.mjs'
import { ensureDependencies } from './set-up/dependencies.mjs'
import { onlyOne } from './set-up/only-one.mjs'
import { data, ensureData } from './set-up/places.mjs'
import { runMain, Stop, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'
import { setUpDatabase, startServer } from './set-up/server.mjs'
import { startStandIns } from './set-up/stand-ins.mjs'

const usualPort = 5080

await runMain(async () => {
  const fresh = process.argv.includes('--fresh')
  const external = process.env.DATABASE_URL
  ensureData()
  onlyOne()
  await ensurePackages(external ? [] : ['postgresql'])
  await ensureDependencies()
  await ensureBuild()

  const folder = path.join(data, 'postgres')
  if (fresh && external)
    throw new Stop('--fresh empties only a database of our own; empty the one that DATABASE_URL names yourself.')
  if (fresh) {
    say('Beginning again with an empty shop...')
    await removeCluster(folder)
    rmSync(path.join(data, 'secrets.json'), { force: true })
  }
  const port = await choosePort()
  const keys = secrets()
  const cluster = external ? undefined : await startCluster(folder, keys.databasePassword)
  let server
  let standIns
  try {
    const databaseUrl = external ?? (await cluster.database('tessellum'))
    await setUpDatabase(databaseUrl, keys.demoPassword)
    standIns = await startStandIns()
    server = await startServer({ port, databaseUrl, sessionSecret: keys.sessionSecret, env: standIns.env })
  } catch (error) {
    standIns?.stop()
    await cluster?.stop()
    throw error
  }
  say(`
Tessellum is open at http://127.0.0.1:${server.port}

  Demo sign-ins, all with the password  ${keys.demoPassword}
    isaura  owner        bram   designer
    odile   stockroom    corin  teacher

Ctrl-C closes it; everything is kept. "npm start -- --fresh" begins again.`)

  let closing = false
  const close = async () => {
    if (closing) return
    closing = true
    say('\nClosing...')
    await server.stop()
    standIns?.stop()
    await cluster?.stop()
    process.exit(process.exitCode ?? 0)
  }
  process.on('SIGINT', close)
  process.on('SIGTERM', close)
  process.on('SIGHUP', close)
  server.ended.then((code) => {
    if (closing) return
    say(`The server ended with ${code}.`)
    process.exitCode = 1
    close()
  })
})

async function choosePort() {
  const asked = process.env.PORT
  if (asked !== undefined && asked !== '') {
    const port = Number(asked)
    if (!Number.isInteger(port) || port < 0 || port > 65535)
      throw new Stop(`PORT is "${asked}"; it must be a number from 0 to 65535.`)
    if (port !== 0 && !(await isFree(port)))
      throw new Stop(`Port ${port} is taken. Close what uses it, or choose another: PORT=5090 npm start`)
    return port
  }
  for (let port = usualPort; port < usualPort + 20; port++) if (await isFree(port)) return port
  return 0
}
