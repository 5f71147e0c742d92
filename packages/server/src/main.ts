/** The server as a process: listens, and ends in good order when told to, or when whoever started it is gone. */
import { fileURLToPath } from 'node:url'
import pino from 'pino'
import { buildApp } from './app'
import { changes } from './changes/routes'
import { readConfig } from './config'
import { connect, connectShop } from './database/connect'
import { newRevision } from './database/revision'
import { deviceNews } from './devices/news'
import { drawDraft, keepDrawings } from './drawings/drawings'
import { buildOf, FormFiles, formsFolder } from './forms/form-files'
import { serveMetrics, watch } from './http/metrics'
import { workerPool } from './jobs/pool'
import { jobQueue } from './jobs/queue'
import { watchLoop } from './loop-watch'
import { secretOf } from './people/secret'
import { SessionCache } from './people/session-cache'
import { keepPruned } from './pruning'
import { deviceAddresses } from './settings/device-addresses'

const config = readConfig(process.env)
const log = pino({ level: config.LOG_LEVEL })
const { db, writer, close: closeRecords } = connectShop(config.DATABASE_URL, config.LOCK_SECONDS, log)
const workerFile = fileURLToPath(new URL('./worker.js', import.meta.url))
const build = buildOf(workerFile)
const folder = formsFolder(config.FORMS, build)
const workers = workerPool(workerFile, { FORMS: folder })
const jobs = jobQueue({
  url: config.DATABASE_URL,
  db,
  build,
  handlers: {
    document: (task) => workers.run('document', task),
    draw: async (draft) => {
      await drawDraft(db, workers, build, draft)
      return undefined
    },
  },
  log,
})
const drawings = keepDrawings(jobs, build, log)
// Apart, so that who somebody is can be looked up while every other connection waits for a lot.
const { pool: sessionPool, db: people } = connect(config.DATABASE_URL, log, { max: 4 })
const revision = newRevision()
const addresses = deviceAddresses({ db, revision }, config)
const sessions = new SessionCache()
const telling = changes(config.DATABASE_URL, people, deviceNews(addresses), revision, sessions, log)
keepPruned(db, { folder: config.FORMS, build }, log)
const stopMetrics = serveMetrics(config.METRICS_PORT)
watch('work_waiting', 'Work that waits for a thread', () => workers.load().waiting)
watch('work_running', 'Work that is being done by threads', () => workers.load().running)
watch(
  'session_connections_waiting',
  'Requests that wait for a connection to look up who asks',
  () => sessionPool.waitingCount,
)
const secret = await secretOf(people, 'session')
const forms = folder ? new FormFiles(folder) : undefined
const shop = { db, writer, workers, jobs, drawings, forms, revision }
const app = buildApp({ config, shop, addresses, pool: sessionPool, people, secret, sessions, log, changes: telling })

const host = config.TESSELLUM_HOST
if (!/^(127\.\d+\.\d+\.\d+|::1|localhost)$/.test(host) && !config.BEHIND_TLS)
  log.warn({ host }, 'the shop listens to other machines, and what they send can be read on the way: put it behind TLS')
const server = app.listen(config.PORT, host, (error) => {
  if (error) {
    log.error(error.message)
    process.exit(1)
  }
  telling.start()
  jobs.start()
  const address = server.address()
  const port = typeof address === 'object' && address ? address.port : config.PORT
  process.send?.({ listening: port })
  log.debug({ port }, 'listening')
})
// Five seconds, as it is by default, is short enough that a client asks just as its connection is closed.
server.keepAliveTimeout = 65_000

let ending = false
async function end() {
  if (ending) return
  ending = true
  const hard = setTimeout(() => process.exit(1), 5000)
  hard.unref()
  stopMetrics()
  await Promise.all([telling.close(), jobs.close()])
  await new Promise((done) => {
    server.close(done)
    server.closeAllConnections()
  })
  await workers.close()
  await Promise.all([closeRecords(), sessionPool.end()])
  process.exit(0)
}
process.on('SIGTERM', end)
process.on('SIGINT', end)
// Whoever started it may ask how long the loop is held.
let loop: ReturnType<typeof watchLoop> | undefined
process.on('message', (asked) => {
  if (asked !== 'loop') return
  loop ??= watchLoop()
  process.send?.({ loop: loop.read() })
})
// The start command holds this line open; when it dies, however it dies, so does the server.
process.on('disconnect', end)
