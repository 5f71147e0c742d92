import { chmodSync, mkdirSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = path.dirname(path.dirname(path.dirname(fileURLToPath(import.meta.url))))
export const data = path.join(root, '.data')

/** The project's own folder for everything it keeps; not in the repository. */
export function ensureData() {
  mkdirSync(data, { recursive: true })
  chmodSync(data, 0o755)
}
