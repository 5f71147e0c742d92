/**
 * `npm run bench`: how long the core takes, as ratios of figures taken side by side in one run. It judges nothing.
 * The core is built for Node first, since benchmarks run what ships.
 */
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'vite'
import { data, ensureData, root } from './set-up/places.mjs'
import { say } from './set-up/say.mjs'

ensureData()
const outDir = path.join(data, 'bench')
await build({
  logLevel: 'error',
  build: {
    ssr: path.join(root, 'packages/core/src/report/reckon-pattern.ts'),
    outDir,
    emptyOutDir: true,
    rollupOptions: { output: { format: 'es', entryFileNames: 'core.mjs' } },
  },
})
const { reckonPattern } = await import(pathToFileURL(path.join(outDir, 'core.mjs')).href)

const tube = (around, rounds) =>
  `pattern Tube\nbead A cylinder 11/0\npart p\nring ${around}A\n${'round A\n'.repeat(rounds)}finish\n`

/** The middle of several runs, ms. */
function time(act, runs = 41) {
  const took = Array.from({ length: runs }, () => {
    const from = performance.now()
    act()
    return performance.now() - from
  })
  return took.sort((a, b) => a - b)[runs >> 1]
}

const sizes = [1_000, 5_000, 10_000, 100_000].map((beads) => {
  const source = tube(100, Math.round((beads - 100) / 50))
  reckonPattern(source)
  const { work } = reckonPattern(source)
  return { beads: work.beads, ms: time(() => reckonPattern(source)) }
})
say('Reckoning a pattern')
for (const { beads, ms } of sizes)
  say(
    `  ${String(beads).padStart(7)} beads  ${ms.toFixed(1).padStart(8)} ms  ${((ms / beads) * 1000).toFixed(2)} us a bead`,
  )
const [, , ten, hundred] = sizes
say(`  100k to 10k: ${(hundred.ms / ten.ms).toFixed(1)} times`)

// What the work itself holds, after everything else has been let go.
const settle = () => {
  for (let i = 0; i < 4; i++) gc()
  const { heapUsed, arrayBuffers } = process.memoryUsage()
  return heapUsed + arrayBuffers
}
const source = tube(100, 2000)
const before = settle()
const held = reckonPattern(source).work
const bytes = settle() - before
say(`  ${(bytes / held.passes).toFixed(0)} bytes a pass (${held.passes} passes)`)
