import { fork } from 'node:child_process'
import path from 'node:path'
import { data, root } from './places.mjs'

/** What each tells of itself, and what the server calls it. */
const standIns = [
  { name: 'scale', told: 'line', env: 'SCALE' },
  { name: 'printer', told: 'printer', env: 'PRINTER' },
  { name: 'scanner', told: 'line', env: 'SCANNER' },
  { name: 'supplier', told: 'supplier', env: 'SUPPLIER' },
]

/**
 * Starts the stand-ins of the demo, each a process of its own that ends when we do; a device of one's own is named in the environment, and has none.
 * @returns {Promise<{env: Record<string, string>, stop: () => void}>} where the server finds them
 */
export async function startStandIns() {
  const started = await Promise.all(standIns.filter(({ env }) => !process.env[env]).map(start))
  return {
    env: Object.assign({}, ...started.map(({ env }) => env)),
    stop: () => {
      for (const { child } of started) child.kill('SIGTERM')
    },
  }
}

function start({ name, told, env }) {
  return new Promise((resolve, reject) => {
    const child = fork(path.join(root, `packages/stand-ins/dist/${name}.js`), {
      cwd: root,
      env: { ...process.env, PRINTER_FOLDER: process.env.PRINTER_FOLDER ?? path.join(data, 'printed') },
    })
    child.once('exit', (code) => reject(new Error(`The ${name}'s stand-in ended with ${code}.`)))
    child.once('message', (ports) =>
      resolve({
        child,
        env: { [env]: `127.0.0.1:${ports[told]}`, [`${env}_CONTROL`]: `127.0.0.1:${ports.control}` },
      }),
    )
  })
}
