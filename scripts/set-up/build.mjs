import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { data, ensureData, root } from './places.mjs'
import { must } from './run.mjs'
import { say } from './say.mjs'

const sources = [
  'package-lock.json',
  'demo',
  ...['core', 'contract', 'server', 'web'].map((name) => `packages/${name}`),
]
const left = new Set(['node_modules', 'dist', 'test'])

/** Builds what has changed since the last build, judged by the contents of the sources. */
export async function ensureBuild() {
  ensureData()
  const stamp = path.join(data, 'build')
  const print = fingerprint()
  const built =
    existsSync(path.join(root, 'packages/server/dist/main.js')) &&
    existsSync(path.join(root, 'packages/web/dist/index.html'))
  if (built && existsSync(stamp) && readFileSync(stamp, 'utf8') === print) return
  say('Building...')
  await must('npm', ['run', '-s', 'build'], { cwd: root })
  writeFileSync(stamp, fingerprint())
}

function fingerprint() {
  const hash = createHash('sha256')
  const walk = (file) => {
    const full = path.join(root, file)
    if (!existsSync(full)) return
    const entries = readdirSync(full, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))
    for (const entry of entries) {
      if (left.has(entry.name) || entry.name.startsWith('parser.')) continue
      const inner = path.join(file, entry.name)
      if (entry.isDirectory()) walk(inner)
      else take(inner)
    }
  }
  const take = (file) =>
    hash
      .update(file)
      .update('\0')
      .update(readFileSync(path.join(root, file)))
      .update('\0')
  for (const source of sources) source.includes('.') ? take(source) : walk(source)
  return hash.digest('hex')
}
