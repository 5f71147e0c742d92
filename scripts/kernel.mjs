/** Compiles the innermost loops of the core to WebAssembly, and writes them where the core imports them from. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import asc from 'assemblyscript/asc'
import { root } from './set-up/places.mjs'

const folder = mkdtempSync(path.join(os.tmpdir(), 'tessellum-kernel-'))
try {
  const out = path.join(folder, 'kernel.wasm')
  const { error, stderr } = await asc.main([
    path.join(root, 'packages/core/kernel/index.ts'),
    ...['--outFile', out, '--optimizeLevel', '3', '--runtime', 'stub', '--use', 'abort='],
    ...['--enable', 'simd', '--uncheckedBehavior', 'always', '--disableWarning', '235'],
  ])
  if (error) throw new Error(`The loops of the core do not compile.\n${stderr.toString()}`)
  writeFileSync(
    path.join(root, 'packages/core/src/form/kernel/compiled.ts'),
    `export const compiled =\n  '${readFileSync(out).toString('base64')}'\n`,
  )
} finally {
  rmSync(folder, { recursive: true })
}
