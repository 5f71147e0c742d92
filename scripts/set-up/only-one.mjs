import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { data } from './places.mjs'
import { Stop } from './say.mjs'

const file = path.join(data, 'open.pid')

/** One shop a checkout: two would share a cluster and pull it from under each other. A killed one's mark is passed over. */
export function onlyOne() {
  if (existsSync(file)) {
    const pid = Number(readFileSync(file, 'utf8'))
    if (pid > 0 && isStart(pid))
      throw new Stop(`Tessellum is open already in this folder (process ${pid}). Close that one with Ctrl-C first.`)
  }
  writeFileSync(file, String(process.pid))
  process.on('exit', () => rmSync(file, { force: true }))
}

/** Whether a shop of this folder is open just now. */
export const isOpen = () => existsSync(file) && isStart(Number(readFileSync(file, 'utf8')))

/** The number may have gone to another program since: only a start of ours counts. */
function isStart(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('scripts/start.mjs')
  } catch {
    return false
  }
}
