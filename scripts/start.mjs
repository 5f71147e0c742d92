/** `npm start`: everything from a fresh checkout to a shop that answers. See the README. */
import { rmSync } from 'node:fs'
import path from 'node:path'
import { ensureBuild } from './set-up/build.mjs'
import { isFree, removeCluster, startCluster } from './set-up/cluster.mjs'
import { ensurePackages } from './set-up/debian.mjs'
import { ensureDependencies } from './set-up/dependencies.mjs'
import { onlyOne } from './set-up/only-one.mjs'
import { data, ensureData, own } from './set-up/places.mjs'
import { runMain, Stop, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'
import { setUpDatabase, startServer } from './set-up/server.mjs'
import { startStandIns } from './set-up/stand-ins.mjs'

const usualPort = 5080
/** Between two tries to start what has ended, in seconds. */
const maxPause = 30
const wait = (seconds) => new Promise((done) => setTimeout(done, 1000 * seconds).unref())

await runMain(async () => {
  const fresh = process.argv.includes('--fresh')
  const external = process.env.DATABASE_URL
  ensureData()
  await onlyOne('shop')
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
  let cluster = external ? undefined : await startCluster(folder, keys.databasePassword)
  let server
  let standIns
  /** With the address that the database has now. */
  const serve = async (at) => {
    const databaseUrl = external ?? (await cluster.database('tessellum'))
    const env = { ...standIns.env, ...(own ? { BEGIN_TOKEN: keys.beginToken } : {}) }
    return startServer({ port: at, databaseUrl, archiveKey: keys.archiveKey, env })
  }
  try {
    const databaseUrl = external ?? (await cluster.database('tessellum'))
    await setUpDatabase(databaseUrl, own ? undefined : keys.demoPassword)
    standIns = await startStandIns()
    server = await serve(port)
  } catch (error) {
    standIns?.stop()
    await cluster?.stop()
    throw error
  }
  const local = `http://127.0.0.1:${server.port}`
  const address = (process.env.TESSELLUM_URL || local).replace(/\/$/, '')
  say(own ? await greetOwn(local, address, keys.beginToken) : greetDemo(address, keys.demoPassword))
  say(`\nCtrl-C closes it; everything is kept. "npm start -- ${own ? '--own ' : ''}--fresh" begins again.`)

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

  // What ends by itself is started again, after a pause that grows while it keeps ending; a database that recovers is waited for.
  const open = server.port
  const watch = async () => {
    for (let pause = 1; !closing; pause = Math.min(2 * pause, maxPause)) {
      const began = Date.now()
      const code = await server.ended
      if (closing) return
      if (Date.now() - began > 60_000) pause = 1
      say(`The server ended with ${code}. It is started again in ${pause} s.`)
      await wait(pause)
      while (!closing && !(await again(open))) await wait(maxPause)
    }
  }
  const again = async (at) => {
    try {
      server = await serve(at)
      say('The server is open again.')
      return true
    } catch (error) {
      say(`It did not start: ${error.message}`)
      return false
    }
  }
  const watchDatabase = async () => {
    while (!closing) {
      await wait(2)
      if (closing || !cluster || (await cluster.isRunning())) continue
      say('The database has ended. It is started again.')
      try {
        cluster = await startCluster(folder, keys.databasePassword)
        say('The database is there again.')
      } catch (error) {
        say(`It did not start: ${error.message}`)
      }
    }
  }
  void watch()
  void watchDatabase()
})

function greetDemo(address, password) {
  return `
Tessellum is open at ${address}

  Demo sign-ins, all with the password  ${password}
    isaura  owner        bram   designer
    odile   stockroom    corin  teacher
    wren    counter`
}

async function greetOwn(local, address, token) {
  const { name, empty } = await (await fetch(`${local}/api/shop`)).json()
  return empty ? `\nYour shop is empty. Begin it at\n\n  ${address}/begin#${token}` : `\n${name} is open at ${address}`
}

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
