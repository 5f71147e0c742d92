/** `npm run dev`: the server built anew and started again at every change, the pages live by Vite. */
import { spawn } from 'node:child_process'
import { watch } from 'node:fs'
import path from 'node:path'
import { freePort, startCluster } from './set-up/cluster.mjs'
import { ensurePackages } from './set-up/debian.mjs'
import { ensureDependencies } from './set-up/dependencies.mjs'
import { onlyOne } from './set-up/only-one.mjs'
import { data, ensureData, root } from './set-up/places.mjs'
import { must } from './set-up/run.mjs'
import { runMain, say } from './set-up/say.mjs'
import { secrets } from './set-up/secrets.mjs'
import { setUpDatabase, startServer } from './set-up/server.mjs'

await runMain(async () => {
  ensureData()
  await onlyOne('shop')
  const external = process.env.DATABASE_URL
  await ensurePackages(external ? [] : ['postgresql'])
  await ensureDependencies()
  const build = () => must('npm', ['run', '-s', 'build:server'], { cwd: root })
  await must('npm', ['run', '-s', 'generate'], { cwd: root })
  await build()
  const keys = secrets()
  const cluster = external ? undefined : await startCluster(path.join(data, 'postgres'), keys.databasePassword)
  const databaseUrl = external ?? (await cluster.database('tessellum'))
  await setUpDatabase(databaseUrl, keys.demoPassword)
  const port = await freePort()
  const serve = () => startServer({ port, databaseUrl, archiveKey: keys.archiveKey, env: { CHECK_ANSWERS: 'true' } })
  let server = await serve()

  let pause
  const again = () => {
    clearTimeout(pause)
    pause = setTimeout(async () => {
      try {
        await build()
        await server.stop()
        server = await serve()
        say('server started again')
      } catch (error) {
        say(error.message)
      }
    }, 200)
  }
  for (const name of ['core', 'contract', 'server'])
    watch(path.join(root, 'packages', name, 'src'), { recursive: true }, again)

  const pages = spawn('npx', ['vite', '--config', 'packages/web/vite.config.ts', 'packages/web'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, API_PORT: String(port) },
  })
  say(`Demo sign-ins isaura, bram, odile, corin; password ${keys.demoPassword}`)
  process.on('SIGINT', async () => {
    pages.kill()
    await server.stop()
    await cluster?.stop()
    process.exit(0)
  })
})
