import { chmodSync, mkdirSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = path.dirname(path.dirname(path.dirname(fileURLToPath(import.meta.url))))
/** Everything the project keeps, outside the repository; another folder for a second shop beside the first. */
export const data = process.env.TESSELLUM_DATA ? path.resolve(process.env.TESSELLUM_DATA) : path.join(root, '.data')

/** Makes it, open to the user whom PostgreSQL runs as. */
export function ensureData() {
  mkdirSync(data, { recursive: true })
  chmodSync(data, 0o755)
}
