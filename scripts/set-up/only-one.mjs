/**
 * One process at a time works with a data folder: two would share a cluster and pull it from under each other. It leaves a mark with its number
 * and when it began, so that the mark of one that was killed is passed over, whoever has its number since.
 */
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { data } from './places.mjs'
import { Stop, say } from './say.mjs'

const file = path.join(data, 'open.json')

/** When a process began, in ticks since the machine did; undefined when there is none. */
function beganAt(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    // The name in brackets may hold anything, spaces too.
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]
  } catch {
    return undefined
  }
}

/** Who works with this folder just now: `{pid, what}`, or undefined. */
export function whoIsIn() {
  try {
    const { pid, began, what } = JSON.parse(readFileSync(file, 'utf8'))
    return began !== undefined && beganAt(pid) === began ? { pid, what } : undefined
  } catch {
    return undefined
  }
}

/** Whether a shop of this folder is open just now. */
export const isOpen = () => whoIsIn()?.what === 'shop'

const wait = () => new Promise((done) => setTimeout(done, 300))

/**
 * Takes the folder until the process ends. A backup or a restore that is at work is waited for.
 *
 * @param {'shop' | 'backup' | 'restore' | 'verification'} what
 * @throws Stop when a shop is open in it
 */
export async function onlyOne(what) {
  let told = false
  for (;;) {
    const there = whoIsIn()
    if (there?.what === 'shop')
      throw new Stop(
        `Tessellum is open already in this folder (process ${there.pid}). Close that one with Ctrl-C first.`,
      )
    if (there) {
      if (!told) say(`Waiting for the ${there.what} that is at work in this folder (process ${there.pid})...`)
      told = true
      await wait()
      continue
    }
    // Whoever writes it first has it. Two that both pass over an old mark may take away each other's: the last one stands.
    if (existsSync(file)) rmSync(file, { force: true })
    try {
      const mark = JSON.stringify({ pid: process.pid, began: beganAt(process.pid), what })
      writeFileSync(file, mark, { flag: 'wx' })
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
      continue
    }
    await wait()
    if (whoIsIn()?.pid !== process.pid) continue
    process.on('exit', () => whoIsIn()?.pid === process.pid && rmSync(file, { force: true }))
    return
  }
}
