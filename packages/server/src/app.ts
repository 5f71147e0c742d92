import { readFileSync } from 'node:fs'
import path from 'node:path'
import { pageBuildHeader, pageBuildOf } from '@tessellum/contract/page-build'
import { mayDo } from '@tessellum/contract/rights'
import compression from 'compression'
import { csrfSync } from 'csrf-sync'
import { sql } from 'drizzle-orm'
import express, { type Express, type RequestHandler, Router } from 'express'
import staticCompressed from 'express-static-gzip'
import helmet from 'helmet'
import type pg from 'pg'
import type { Logger } from 'pino'
import { archiveRoutes } from './archive/routes'
import { auditRoutes } from './audit/routes'
import { batchRoutes } from './batches/routes'
import { beginRoutes } from './begin/routes'
import { buyingRoutes } from './buying/routes'
import { supplierRoutes } from './buying/supplier-routes'
import type { changes } from './changes/routes'
import { classRoutes } from './classes/routes'
import { colourwayRoutes } from './colourways/routes'
import type { Config } from './config'
import type { Caller, SignedIn } from './context'
import { customerRoutes } from './customers/routes'
import type { Database } from './database/connect'
import { deviceRoutes } from './devices/routes'
import { diaryRoutes } from './diary/routes'
import { editionRoutes } from './editions/routes'
import { answerErrors, nothingHere } from './http/errors'
import { mount } from './http/mount'
import { openApi } from './http/openapi'
import { digestBody } from './idempotency/request-key'
import { wasDone } from './idempotency/run-once'
import { orderRoutes } from './orders/routes'
import { packingRoutes } from './packing/routes'
import { pictureRoutes } from './patterns/picture-routes'
import { patternRoutes } from './patterns/routes'
import { sampleRoutes } from './patterns/sample-routes'
import { peopleRoutes } from './people/routes'
import type { SessionCache } from './people/session-cache'
import { sessions, whoAsks } from './people/sessions'
import { signInLimit } from './people/sign-in-limit'
import { salesRoutes } from './sales/routes'
import type { Addresses } from './settings/device-addresses'
import { settingsRoutes } from './settings/routes'
import type { Shop } from './shop'
import { stockFileRoutes } from './stock/file-routes'
import { stockRoutes } from './stock/routes'

interface Parts {
  readonly config: Config
  readonly shop: Shop
  readonly addresses: () => Promise<Addresses>
  /** Of its own connections, so that who somebody is can be looked up while every other waits for a lot. */
  readonly pool: pg.Pool
  readonly people: Database
  readonly secret: string
  readonly sessions: SessionCache
  readonly log: Logger
  readonly changes: ReturnType<typeof changes>
}

/** The whole server, ready to listen. */
export function buildApp({
  config,
  shop,
  addresses,
  pool,
  people,
  secret,
  sessions: cache,
  log,
  changes,
}: Parts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.set('log', log)
  app.set('answer seconds', config.ANSWER_SECONDS)
  app.set('check answers', config.CHECK_ANSWERS)
  app.set('on commit', () => shop.revision.bump())
  app.set('was done', (caller: Caller) => wasDone(shop.db, caller))
  // Nothing of the API is kept by browsers, so nothing needs a mark to be compared by.
  app.disable('etag')
  if (config.BEHIND_TLS) app.set('trust proxy', 1)
  const files = config.WEB_ROOT ? filesOfPage(config.WEB_ROOT) : undefined
  // A page brings a hundred files, to which its own headers apply. A worker has those of its own file.
  if (files) app.get(/^\/assets\/(?!.*\.worker-)/, helmet.xContentTypeOptions(), files)
  // All but streams, which are to arrive as they are written.
  app.use(compression({ filter: (_, response) => compressible(response.getHeader('content-type')) }))

  const { csrfSynchronisedProtection, generateToken } = csrfSync()
  app.use('/api', ...answerHeaders(config), sessions({ config, secret, people, cache, log }), whoAsks, readBody)
  // Whoever signs in, begins the shop, or comes by a link, has no session to forge yet; the cookie is same-site and the body JSON.
  app.use('/api', (request, response, next) =>
    /^\/(sign-in|begin|welcome(\/password)?)$/.test(request.path)
      ? next()
      : csrfSynchronisedProtection(request, response, next),
  )

  const health = Router()
  mount(health, 'GET /api/health', async () => {
    await shop.db.execute(sql`select 1`)
    return { ok: true }
  })
  mount(health, 'GET /api/work', async ({ caller }) => {
    const { ahead, done } = shop.workers.stateFor(caller.id)
    return { ahead: ahead + (await shop.jobs.ahead(caller.id)), done }
  })
  let described: ReturnType<typeof openApi> | undefined
  mount(health, 'GET /api/openapi.json', () => {
    described ??= openApi()
    return described
  })
  const limit = signInLimit(pool)
  // A route is looked for in this order: what is asked most stands first.
  app.use(
    stockFileRoutes(shop),
    stockRoutes(shop),
    health,
    beginRoutes(shop.db, config, limit, (request) => generateToken(request)),
    peopleRoutes(shop.db, limit, cache, (request) => generateToken(request)),
    settingsRoutes(shop),
    patternRoutes(shop),
    colourwayRoutes(shop),
    sampleRoutes(shop),
    pictureRoutes(shop),
    batchRoutes(shop),
    buyingRoutes(shop, addresses),
    supplierRoutes(shop),
    packingRoutes(shop),
    deviceRoutes(shop, addresses, config),
    archiveRoutes(shop, config.ARCHIVE_KEY),
    classRoutes(shop),
    orderRoutes(shop),
    customerRoutes(shop),
    salesRoutes(shop),
    diaryRoutes(shop),
    auditRoutes(shop),
    editionRoutes(shop),
    changes.router,
  )
  app.use('/api', nothingHere)

  if (files) {
    app.use(pageHeaders(config), files)
    app.get('/{*any}', (_, response) => {
      response.set('cache-control', 'no-cache').sendFile(path.join(config.WEB_ROOT, 'index.html'))
    })
  }
  app.use(answerErrors(log))
  return app
}

/** Their names change with what they hold: nobody asks whether one is still the same, or for a part of it. */
const filesOfPage = (folder: string): RequestHandler =>
  staticCompressed(folder, {
    enableBrotli: true,
    index: false,
    serveStatic: { immutable: true, maxAge: '1y', etag: false, lastModified: false, acceptRanges: false },
  })

const compressible = (type: unknown) => /json|text\/(?!event-stream)|javascript|svg|font\/ttf/.test(String(type))

/** Of an answer of the API, which runs nothing and loads nothing; a drawing has its colours in it. */
function answerHeaders({ WEB_ROOT, BEHIND_TLS }: Config): RequestHandler[] {
  const build = WEB_ROOT && pageBuildOf(readFileSync(path.join(WEB_ROOT, 'index.html'), 'utf8'))
  const own = { 'cache-control': 'no-store', ...(build ? { [pageBuildHeader]: build } : {}) }
  const csp = { defaultSrc: ["'none'"], styleSrc: ["'unsafe-inline'"], imgSrc: ['data:'], frameAncestors: ["'none'"] }
  return [
    (_, response, next) => {
      response.set(own)
      next()
    },
    helmet.contentSecurityPolicy({ useDefaults: false, directives: csp }),
    helmet.xContentTypeOptions(),
    helmet.crossOriginResourcePolicy(),
    ...(BEHIND_TLS ? [helmet.strictTransportSecurity()] : []),
  ]
}

/** Ant Design writes its styles into the page; everything else comes from this server only. */
const pageHeaders = ({ BEHIND_TLS }: Config): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // Workers compile the loops that settle a piece; pages have nothing to compile.
        scriptSrc: [({ url }) => (/^\/assets\/.*\.worker-/.test(url ?? '') ? "'self' 'wasm-unsafe-eval'" : "'self'")],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:'],
        workerSrc: ["'self'", 'blob:'],
        upgradeInsecureRequests: BEHIND_TLS ? [] : null,
      },
    },
    strictTransportSecurity: BEHIND_TLS,
  })

/** Reading a body holds up everybody else: the more, the longer. Who has not signed in sends a name and a password, and only a pattern's text is large. */
const bodies = {
  signIn: express.json({ limit: '8kb', verify: digestBody }),
  usual: express.json({ limit: '256kb', verify: digestBody }),
  text: express.json({ limit: '9mb', verify: digestBody }),
}
const takesText = /^\/patterns(\/\d+\/draft)?$/

const readBody: RequestHandler = (request, response, next) => {
  const caller: SignedIn | undefined = response.locals.caller
  const mayWrite = caller && mayDo(caller.roles, 'patterns.write')
  const read = !caller ? bodies.signIn : mayWrite && takesText.test(request.path) ? bodies.text : bodies.usual
  read(request, response, next)
}
