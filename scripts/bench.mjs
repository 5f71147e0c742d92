/**
 * `npm run bench`: how long the core takes, as ratios of figures taken side by side in one run. It judges nothing.
 * The core is built for Node first, since benchmarks run what ships.
 */
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'vite'
import { chromiumPath } from './set-up/debian.mjs'
import { data, ensureData, root } from './set-up/places.mjs'
import { say } from './set-up/say.mjs'

ensureData()
const outDir = path.join(data, 'bench')
await build({
  logLevel: 'error',
  build: {
    ssr: true,
    outDir,
    emptyOutDir: true,
    rollupOptions: {
      input: {
        reckon: path.join(root, 'packages/core/src/report/reckon-pattern.ts'),
        form: path.join(root, 'packages/core/src/form/form.ts'),
      },
      output: { format: 'es', entryFileNames: '[name].mjs' },
    },
  },
})
const built = (name) => import(pathToFileURL(path.join(outDir, `${name}.mjs`)).href)
const { reckonPattern } = await built('reckon')
const { beginForm } = await built('form')

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

say('Settling a form')
const settled = [1_000, 2_000, 4_000, 8_000].map((beads) => {
  const reckoned = reckonPattern(tube(100, Math.round((beads - 100) / 50)))
  // Forty to warm up, and for what begins too near to part.
  const form = beginForm(reckoned)
  form.settling.run(40)
  const from = performance.now()
  form.settling.run(60)
  const each = (performance.now() - from) / 60
  const begun = performance.now()
  const whole = beginForm(reckoned)
  const { iterations } = whole.settling.run(5_000)
  return { beads: reckoned.work.beads, each, iterations, ms: performance.now() - begun }
})
for (const { beads, each, iterations, ms } of settled)
  say(
    `  ${String(beads).padStart(7)} beads  ${each.toFixed(2).padStart(8)} ms an iteration  ${((each / beads) * 1000).toFixed(2)} us a bead; still after ${iterations}: ${ms.toFixed(0)} ms`,
  )
say(`  an iteration, 8k to 1k: ${(settled[3].each / settled[0].each).toFixed(1)} times`)

say('Turning a piece, drawn, without a graphics card')
const browserPath = chromiumPath()
if (browserPath) {
  const { chromium } = await import('playwright-core')
  await build({
    configFile: false,
    logLevel: 'error',
    build: {
      outDir: path.join(outDir, 'turning'),
      emptyOutDir: true,
      lib: {
        entry: path.join(root, 'scripts/bench-turning.ts'),
        formats: ['iife'],
        name: 'bench',
        fileName: () => 'turning.js',
      },
    },
  })
  const browser = await chromium.launch({ executablePath: browserPath, args: ['--no-sandbox', '--disable-gpu'] })
  const page = await browser.newPage()
  await page.addScriptTag({ path: path.join(outDir, 'turning', 'turning.js') })
  for (const beads of [500, 1_000, 2_000, 4_000]) {
    const gap = await page.evaluate((source) => window.turning(source), tube(100, Math.round((beads - 100) / 50)))
    say(
      `  ${String(beads).padStart(7)} beads  ${gap.toFixed(1).padStart(8)} ms a frame, ${(1000 / gap).toFixed(0)} a second`,
    )
  }
  await browser.close()
} else say('  Chromium is not installed; "npm test" installs it.')
