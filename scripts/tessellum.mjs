/** `npm run -s tessellum -- ...`: the command line, built when its sources have changed. */
import { spawnSync } from 'node:child_process'
import path from 'node:path'
import { ensureCommandLine } from './set-up/build.mjs'
import { ensureDependencies } from './set-up/dependencies.mjs'
import { root } from './set-up/places.mjs'
import { runMain } from './set-up/say.mjs'

await runMain(async () => {
  // Standard output is the command's own.
  await ensureDependencies((text) => process.stderr.write(`${text}\n`))
  await ensureCommandLine()
  const { status } = spawnSync(
    process.execPath,
    [path.join(root, 'packages/cli/dist/tessellum.js'), ...process.argv.slice(2)],
    { stdio: 'inherit' },
  )
  process.exitCode = status ?? 1
})
