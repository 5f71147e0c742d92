/**
 * `npm run bench`: how long the core takes, as ratios of figures taken side by side in one run. It judges nothing.
 * The core is built for Node first, since benchmarks run what ships. `npm run bench -- PART...` takes some parts only: core, forms, colours, turning,
 * and of the shop clients, kills, shelf, diary, documents, page.
 */
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'vite'
import { benchForms } from './bench-forms.mjs'
import { benchShop } from './bench-shop.mjs'
import { chromiumPath } from './set-up/debian.mjs'
import { data, ensureData, root } from './set-up/places.mjs'
import { say } from './set-up/say.mjs'

const parts = ['core', 'forms', 'colours', 'turning']
const wanted = process.argv.slice(2)
const ofShop = ['clients', 'kills', 'shelf', 'diary', 'documents', 'page']
const unknown = wanted.find((part) => !parts.includes(part) && !ofShop.includes(part))
if (unknown) {
  say(`There is no part "${unknown}". The parts are ${[...parts, ...ofShop].join(', ')}.`)
  process.exit(1)
}
const wants = (part) => wanted.length === 0 || wanted.includes(part)

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
        stitching: path.join(root, 'packages/core/src/hand/stitching.ts'),
        evaluate: path.join(root, 'packages/core/src/evaluate/evaluate-pattern.ts'),
        form: path.join(root, 'packages/core/src/form/form.ts'),
        start: path.join(root, 'packages/core/src/form/start.ts'),
        unfold: path.join(root, 'packages/core/src/form/unfold.ts'),
        settle: path.join(root, 'packages/core/src/form/settle.ts'),
        soundness: path.join(root, 'packages/core/src/form/soundness.ts'),
        scene: path.join(root, 'packages/core/src/drawing/scene.ts'),
        view: path.join(root, 'packages/core/src/drawing/view.ts'),
        svg: path.join(root, 'packages/core/src/drawing/svg.ts'),
        colours: path.join(root, 'packages/core/src/drawing/role-colours.ts'),
        substitutes: path.join(root, 'packages/core/src/substitute/substitutes.ts'),
        propose: path.join(root, 'packages/core/src/substitute/propose.ts'),
        beads: path.join(root, 'packages/core/src/catalogue/nominal-beads.ts'),
      },
      output: { format: 'es', entryFileNames: '[name].mjs' },
    },
  },
})
const built = (name) => import(pathToFileURL(path.join(outDir, `${name}.mjs`)).href)
const { evaluatePattern } = await built('evaluate')
const { substitutesFor } = await built('substitutes')
const { proposeColourways } = await built('propose')
const { nominalBead } = await built('beads')

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

if (wants('core')) {
  const sizes = [1_000, 5_000, 10_000, 100_000].map((beads) => {
    const source = tube(100, Math.round((beads - 100) / 50))
    evaluatePattern(source)
    const { work } = evaluatePattern(source)
    return { beads: work.beads, ms: time(() => evaluatePattern(source)) }
  })
  say('Evaluating a pattern')
  for (const { beads, ms } of sizes)
    say(
      `  ${String(beads).padStart(7)} beads  ${ms.toFixed(1).padStart(8)} ms  ${((ms / beads) * 1000).toFixed(2)} us a bead`,
    )
  const [, , ten, hundred] = sizes
  say(`  100k to 10k: ${(hundred.ms / ten.ms).toFixed(1)} times`)

  const { Stitching } = await built('stitching')
  say('\nStitching by hand on a tube: what one pass more takes, next to evaluating the whole text once')
  for (const rounds of [16, 36, 96]) {
    const text = tube(50, rounds).replace('finish\n', '')
    const stitching = Stitching.begin(text, {})
    const beads = stitching.state([]).beads
    const made = [
      { type: 'pick', role: 'A', bore: 0 },
      { type: 'pass', hole: 4 * (beads - 24) },
    ]
    const [proposed, evaluated] = [time(() => stitching.state(made)), time(() => evaluatePattern(text))]
    say(
      `  ${String(beads).padStart(7)} beads  ${proposed.toFixed(1).padStart(8)} ms  ${(proposed / evaluated).toFixed(1)} times`,
    )
  }

  // What the work itself holds, after everything else has been let go.
  const settle = () => {
    for (let i = 0; i < 4; i++) gc()
    const { heapUsed, arrayBuffers } = process.memoryUsage()
    return heapUsed + arrayBuffers
  }
  const source = tube(100, 2000)
  const before = settle()
  const held = evaluatePattern(source).work
  const bytes = settle() - before
  say(`  ${(bytes / held.passes).toFixed(0)} bytes a pass (${held.passes} passes)`)
}

if (wants('forms')) {
  benchForms({
    evaluatePattern,
    ...(await built('form')),
    ...(await built('start')),
    ...(await built('unfold')),
    ...(await built('settle')),
    ...(await built('soundness')),
    ...(await built('scene')),
    ...(await built('view')),
    ...(await built('svg')),
    ...(await built('colours')),
  })
}

if (wants('colours')) {
  say('Working through a shelf, for a pattern of 2,000 beads')
  {
    const letters = ['A', 'B', 'C']
    const colours = { A: '#2e5e4e', B: '#c9a24a', C: '#e9e1cf' }
    const rounds = Array.from({ length: 38 }, (_, i) => `round ${letters[i % 3]}\n`).join('')
    const text = `pattern Tube\n${letters.map((letter) => `bead ${letter} cylinder 11/0\n`).join('')}part p\nring 100A\n${rounds}finish\n`
    const { report } = evaluatePattern(text)
    const touching = [
      { roles: ['A', 'B'], places: 600 },
      { roles: ['B', 'C'], places: 600 },
      { roles: ['A', 'C'], places: 600 },
    ]
    const nominal = nominalBead('cylinder', '11/0')
    // Every fifth is a maker's whose beads are a little longer.
    const shelf = (items) =>
      Array.from({ length: items }, (_, i) => {
        const bead = i % 5 === 0 ? { ...nominal, lengthMm: nominal.lengthMm * 1.07, maker: 'another' } : nominal
        const colour = `#${((i * 2654435761) >>> 8).toString(16).padStart(6, '0').slice(-6)}`
        return {
          id: i,
          colour,
          finish: 'opaque',
          bead,
          kit: { id: i, unit: 'mg', massMg: bead.massMg, bead },
          free: 9e6,
        }
      })
    const roles = report.beads.map(({ role, total }, i) => ({
      role,
      itemId: -i,
      label: '',
      shape: 'cylinder 11/0',
      colourName: role,
      colour: colours[role],
      finish: 'opaque',
      count: total,
    }))
    const asked = { source: text, choices: {}, role: 'A', kit: {}, colours, touching, kits: 20 }
    const proposing = { report, roles, kit: {}, touching, thread: undefined, kits: 20, from: { type: 'shelf' } }
    const [some, all] = [500, 5_000].map((items) => {
      const candidates = shelf(items)
      const substitutes = time(() => substitutesFor({ ...asked, now: candidates[1], candidates }), 5)
      const proposals = time(() => {
        const steps = proposeColourways({ ...proposing, candidates })
        while (!steps.next().done);
      }, 5)
      return { items, substitutes, proposals }
    })
    for (const { items, substitutes, proposals } of [some, all])
      say(
        `  ${String(items).padStart(7)} items  substitutes ${substitutes.toFixed(0)} ms, colourways ${proposals.toFixed(0)} ms`,
      )
    say(
      `  5,000 to 500: substitutes ${(all.substitutes / some.substitutes).toFixed(1)} times, colourways ${(all.proposals / some.proposals).toFixed(1)} times`,
    )
  }
}

if (wants('turning')) {
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
}

if (ofShop.some(wants)) await benchShop(ofShop.filter(wants), evaluatePattern)
