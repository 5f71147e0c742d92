import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { root } from './places.mjs'
import { must } from './run.mjs'
import { Stop, say } from './say.mjs'

/** Installs the locked dependencies when they are not the ones that are there. */
export async function ensureDependencies(tell = say) {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    throw new Stop(`This is Node ${process.versions.node}; 20.19 or newer is needed.`)
  const stamp = path.join(root, 'node_modules', '.tessellum-lock')
  const lock = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  tell('Installing dependencies...')
  await must('npm', ['ci', '--prefer-offline', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root })
  writeFileSync(stamp, lock)
}
