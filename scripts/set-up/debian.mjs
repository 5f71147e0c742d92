import { accessSync, constants, existsSync, readdirSync } from 'node:fs'
import path from 'node:path'
import { must, run } from './run.mjs'
import { Stop, say } from './say.mjs'

const isRoot = process.getuid?.() === 0

/** The newest PostgreSQL that Debian's packages have put here, or undefined. 15 and up will do. */
export function postgresBin() {
  const root = '/usr/lib/postgresql'
  if (!existsSync(root)) return undefined
  const versions = readdirSync(root)
    .map(Number)
    .filter((version) => version >= 15 && existsSync(path.join(root, String(version), 'bin', 'initdb')))
    .sort((a, b) => b - a)
  return versions.length > 0 ? path.join(root, String(versions[0]), 'bin') : undefined
}

export const chromiumPath = () => ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(executable)

function executable(file) {
  try {
    accessSync(file, constants.X_OK)
    return true
  } catch {
    return false
  }
}

const wants = {
  postgresql: () => postgresBin() !== undefined,
  chromium: () => chromiumPath() !== undefined,
}

/** Installs those of the named Debian packages that are missing; says which commands would, where it may not. */
export async function ensurePackages(names) {
  const missing = names.filter((name) => !wants[name]())
  if (missing.length === 0) return
  const install = `apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (!existsSync('/usr/bin/apt-get'))
    throw new Stop(`Missing: ${missing.join(', ')}. Install them with your system's package manager and start again.`)
  const sudo = !isRoot && (await run('sudo', ['-n', 'true']).catch(() => ({ code: 1 }))).code === 0
  if (!isRoot && !sudo) {
    throw new Stop(
      `Missing Debian packages: ${missing.join(', ')}. Run these, then start again:\n\n  sudo apt-get update\n  sudo ${install}\n`,
    )
  }
  say(`Installing ${missing.join(' and ')} from Debian's packages...`)
  // Debian would make and start a cluster of its own; ours lives in the project.
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive', NEEDRESTART_SUSPEND: '1' }
  const apt = (args) =>
    sudo
      ? must('sudo', ['-n', 'env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args])
      : must('apt-get', args, { env })
  try {
    await apt(['update', '-qq'])
    await apt(['install', '-y', '-qq', '--no-install-recommends', ...missing])
  } catch (error) {
    throw new Stop(`${error.message}\n\nInstalling failed. Mend that, or run it yourself:\n\n  ${install}\n`)
  }
  const still = missing.filter((name) => !wants[name]())
  if (still.length > 0) throw new Stop(`Installed, but not found: ${still.join(', ')}. PostgreSQL must be 15 or newer.`)
}
