import { chmodSync, mkdirSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = path.dirname(path.dirname(path.dirname(fileURLToPath(import.meta.url))))
/** A shop of one's own instead of the demo shop: `npm start -- --own`. */
export const own = process.argv.includes('--own')
/** What else a command was given. */
export const given = process.argv.slice(2).filter((each) => each !== '--own')
/** Everything the project keeps, outside the repository; another folder for a second shop beside the first. */
export const data = process.env.TESSELLUM_DATA
  ? path.resolve(process.env.TESSELLUM_DATA)
  : path.join(root, '.data', own ? 'own' : '')

/** Makes it, open to the user whom PostgreSQL runs as. */
export function ensureData() {
  mkdirSync(data, { recursive: true })
  chmodSync(data, 0o755)
}
