import { randomBytes, randomInt } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { data, ensureData } from './places.mjs'

const syllables = ['ba', 'de', 'fi', 'go', 'lu', 'ma', 'ne', 'pi', 'ro', 'su', 'ta', 've', 'wi', 'zo']

/** Easy to read off a screen and type at a bench: 14^8, about 30 bits, with tries limited. */
const readablePassword = () =>
  Array.from({ length: 4 }, () => syllables[randomInt(syllables.length)] + syllables[randomInt(syllables.length)]).join(
    '-',
  )

/** Made on the first start and kept in .data, readable by its owner only. */
export function secrets() {
  ensureData()
  const file = path.join(data, 'secrets.json')
  const kept = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}
  const all = {
    databasePassword: randomBytes(24).toString('base64url'),
    archiveKey: randomBytes(32).toString('base64url'),
    demoPassword: readablePassword(),
    beginToken: randomBytes(24).toString('base64url'),
    ...kept,
  }
  if (Object.keys(all).length !== Object.keys(kept).length)
    writeFileSync(file, JSON.stringify(all, null, 2), { mode: 0o600 })
  return all
}
