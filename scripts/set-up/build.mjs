import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { root } from './places.mjs'
import { must } from './run.mjs'
import { say } from './say.mjs'

const packages = (...names) => names.map((name) => `packages/${name}`)
const left = new Set(['node_modules', 'dist', 'test'])
/** Made from other sources. */
const generated = /^(parser\..*|compiled)\.ts$/

/** Builds the server and the pages when their sources have changed since the last build. */
export const ensureBuild = () =>
  ensure({
    name: 'build',
    sources: ['package-lock.json', 'demo', ...packages('core', 'contract', 'server', 'web', 'stand-ins')],
    made: ['packages/server/dist/main.js', 'packages/web/dist/index.html', 'packages/stand-ins/dist/scale.js'],
    scripts: ['build'],
    tell: () => say('Building...'),
  })

/** Builds the command line likewise, without a word on standard output. */
export const ensureCommandLine = () =>
  ensure({
    name: 'build-cli',
    sources: ['package-lock.json', ...packages('core', 'cli')],
    made: ['packages/cli/dist/tessellum.js'],
    scripts: ['generate', 'build:cli'],
    tell: () => undefined,
  })

async function ensure({ name, sources, made, scripts, tell }) {
  const stamp = path.join(root, 'node_modules', `.tessellum-${name}`)
  const print = fingerprint(sources)
  const there = made.every((file) => existsSync(path.join(root, file)))
  if (there && existsSync(stamp) && readFileSync(stamp, 'utf8') === print) return
  tell()
  for (const script of scripts) await must('npm', ['run', '-s', script], { cwd: root })
  writeFileSync(stamp, print)
}

/** A digest of the contents of all sources. */
function fingerprint(sources) {
  const hash = createHash('sha256')
  const walk = (file) => {
    const full = path.join(root, file)
    if (!existsSync(full)) return
    const entries = readdirSync(full, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))
    for (const entry of entries) {
      if (left.has(entry.name) || generated.test(entry.name)) continue
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
