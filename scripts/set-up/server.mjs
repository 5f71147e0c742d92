import { fork } from 'node:child_process'
import path from 'node:path'
import { data, root } from './places.mjs'
import { must, run } from './run.mjs'
import { Stop } from './say.mjs'

const dist = (file) => path.join(root, 'packages/server/dist', file)

/** Brings the database to the newest schema. @param demoPassword opens the demo shop in an empty one; left out, it stays empty */
export const setUpDatabase = (databaseUrl, demoPassword) =>
  must(process.execPath, [dist('set-up.js')], {
    cwd: root,
    env: {
      FORMS: path.join(data, 'forms'),
      ...process.env,
      DATABASE_URL: databaseUrl,
      DEMO_PASSWORD: demoPassword ?? '',
    },
  })

/**
 * Puts an archive into an empty database.
 *
 * @returns what it says of it
 * @throws Stop with what is wrong with it
 */
export async function restoreShop(databaseUrl, archive, password, archiveKey) {
  const { code, output } = await run(process.execPath, [dist('set-up.js')], {
    cwd: root,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      DEMO_PASSWORD: password,
      ARCHIVE: archive,
      ARCHIVE_KEY: archiveKey,
    },
  })
  // Of what is wrong with an archive, one sentence is enough to know.
  if (code !== 0) throw new Stop(output.trim().split('\n')[0].slice(0, 400))
  return output.replace('archive put back\n', '')
}

/** Looks whether what is kept is what the ledger adds up to. @returns {Promise<{right: boolean, told: string}>} and a table that says it */
export async function verifyShop(databaseUrl) {
  const env = { ...process.env, DATABASE_URL: databaseUrl }
  const { code, output } = await run(process.execPath, [dist('verify.js')], { cwd: root, env })
  return { right: code === 0, told: output.trimEnd() }
}

/**
 * Starts the server as a child that ends when we do.
 * @returns {Promise<{port: number, child: import('node:child_process').ChildProcess, stop: () => Promise<void>}>}
 */
export function startServer({ port, databaseUrl, archiveKey, env = {} }) {
  return new Promise((resolve, reject) => {
    const child = fork(dist('main.js'), {
      cwd: root,
      env: {
        NODE_ENV: 'production',
        LOG_LEVEL: 'warn',
        FORMS: path.join(data, 'forms'),
        ...process.env,
        PORT: String(port),
        DATABASE_URL: databaseUrl,
        ARCHIVE_KEY: archiveKey,
        WEB_ROOT: path.join(root, 'packages/web/dist'),
        ...env,
      },
    })
    const ended = new Promise((done) => child.once('exit', done))
    child.once('exit', (code) => reject(new Stop(`The server ended with ${code} before it was ready.`)))
    child.once('message', ({ listening }) =>
      resolve({
        port: listening,
        child,
        ended,
        async stop() {
          child.kill('SIGTERM')
          await ended
        },
      }),
    )
  })
}
