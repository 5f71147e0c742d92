/** The bench's part on forms: how long they take, and whether those of all demo patterns and test pieces are sound, with their drawings. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { root } from './set-up/places.mjs'
import { say } from './set-up/say.mjs'

const folders = ['demo/patterns', 'packages/core/test/pieces']

/**
 * @param core what the bench has built: evaluatePattern, beginForm, pieceAndSeats, graphOfPiece, unfold, Settling, soundnessOf, sceneOf, viewOf, svgOf,
 * roleColours
 */
export function benchForms(core) {
  growth(core)
  stages(core)
  const made = folders.flatMap((folder) =>
    readdirSync(path.join(root, folder)).map((file) => {
      const name = file.replace('.tess', '')
      return { name, ...formOf(readFileSync(path.join(root, folder, file), 'utf8'), core) }
    }),
  )
  say('Forms')
  say(
    `  ${'piece'.padEnd(24)} ${'beads'.padStart(6)}  ${'at rest'.padStart(8)}  ${'gaping'.padStart(10)}  ${'press'.padStart(6)}  ${'deep'.padStart(8)}  ${'seconds'.padStart(8)}`,
  )
  for (const { name, beads, steps, rests, soundness, depthMm, seconds } of made) {
    const { strained, pressed, sound } = soundness
    say(
      `  ${name.padEnd(24)} ${String(beads).padStart(6)}  ${(rests ? String(steps) : 'no').padStart(8)}  ${`${strained.threads}/${strained.of}`.padStart(10)}  ${`${(pressed * 100).toFixed(0)} %`.padStart(6)}  ${`${depthMm.toFixed(1)} mm`.padStart(8)}  ${seconds.toFixed(2).padStart(8)}${sound ? '' : '  NOT SOUND'}`,
    )
  }
  const sound = made.filter(({ soundness }) => soundness.sound).length
  say(`  ${sound} of ${made.length} are sound`)
  const page = path.join(root, 'docs/forms.html')
  writeFileSync(page, pageOf(made))
  say(`  drawn in ${page}`)
}

const tube = (beads) =>
  `pattern Tube\nbead A cylinder 11/0\npart p\nring 40A\n${'round A\n'.repeat(Math.round((beads - 40) / 20))}finish\n`

/** Beads to seconds, and how they grow: tubes, from their text to rest; the first in a new process, the others as in a worker that has computed before. */
function growth({ evaluatePattern, beginForm }) {
  say('From text to rest')
  const taken = [1_000, 1_000, 2_000, 5_000].map((beads) => {
    const from = performance.now()
    const evaluated = evaluatePattern(tube(beads))
    const evaluation = performance.now() - from
    const { iterations } = beginForm(evaluated).settling.run(100_000)
    return { beads: evaluated.work.beads, evaluation, all: performance.now() - from, iterations }
  })
  for (const [k, { beads, evaluation, all, iterations }] of taken.entries())
    say(
      `  ${String(beads).padStart(7)} beads  ${all.toFixed(0).padStart(6)} ms in ${iterations} steps, ${evaluation.toFixed(0)} ms of them evaluated (${((all / iterations / beads) * 1000).toFixed(2)} us a bead and step)${k === 0 ? ', in a new process' : ''}`,
    )
  const [, first, , last] = taken
  say(
    `  5k to 1k: ${(last.all / first.all).toFixed(1)} times, as n to the power of ${(Math.log(last.all / first.all) / Math.log(last.beads / first.beads)).toFixed(2)}`,
  )
}

/** What a whole piece takes to unfold, were it not begun from a few of its repeats, and a step of settling then. */
function stages({ evaluatePattern, pieceAndSeats, graphOfPiece, unfold, Settling }) {
  say('Stages, of the whole piece')
  const all = [1_000, 2_000, 5_000].map((beads) => {
    const { piece } = pieceAndSeats(evaluatePattern(tube(beads)))
    let from = performance.now()
    const ms = {}
    const [beginning] = unfold(graphOfPiece(piece), [], 1, (stage) => {
      const now = performance.now()
      ms[stage] = now - from
      from = now
    })
    const settling = new Settling(piece, 'usual', [beginning])
    from = performance.now()
    const { iterations } = settling.run(200)
    ms['200 steps'] = performance.now() - from
    if (iterations !== 200) throw new Error(`It rested after ${iterations} steps.`)
    say(
      `  ${String(piece.work.beads).padStart(7)} beads  ${Object.entries(ms)
        .map(([stage, each]) => `${stage} ${each.toFixed(0)} ms`)
        .join(', ')}`,
    )
    return ms
  })
  const [first, , last] = all
  say(
    `  5k to 1k, as n to the power of: ${Object.keys(first)
      .map((stage) => `${stage} ${(Math.log(last[stage] / first[stage]) / Math.log(5)).toFixed(2)}`)
      .join(', ')}`,
  )
}

function formOf(source, { evaluatePattern, beginForm, soundnessOf, sceneOf, viewOf, svgOf, roleColours }) {
  const from = performance.now()
  const evaluated = evaluatePattern(source)
  const form = beginForm(evaluated)
  const { iterations, settled } = form.settling.run(100_000)
  const seconds = (performance.now() - from) / 1000
  const { at } = form.piece
  let [low, high] = [Infinity, -Infinity]
  for (let p = 2; p < at.length; p += 3) {
    low = Math.min(low, at[p])
    high = Math.max(high, at[p])
  }
  const scene = sceneOf(evaluated, form)
  const colours = roleColours(evaluated.report.beads.map(({ role }) => role))
  return {
    beads: evaluated.work.beads,
    steps: iterations,
    rests: settled,
    soundness: soundnessOf(form),
    depthMm: high - low,
    seconds,
    drawings: ['front', 'side'].map((face) => svgOf(viewOf(scene, { face }), { title: `from the ${face}`, colours })),
  }
}

const pageOf = (made) => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Forms</title>
<style>
body { font: 13px sans-serif; margin: 12px; display: grid; grid-template-columns: repeat(4, 1fr); gap: 10px }
figure { margin: 0; border: 1px solid #ccc; padding: 6px }
figure > div { display: flex; gap: 8px }
svg { width: 50%; height: 180px }
.unsound { border-color: #9a3f2b; border-width: 3px }
</style></head><body>
${made
  .map(
    ({ name, beads, soundness, drawings }) =>
      `<figure class="${soundness.sound ? '' : 'unsound'}"><figcaption>${name}, ${beads} beads${soundness.sound ? '' : ': not sound'}</figcaption><div>${drawings.join('')}</div></figure>`,
  )
  .join('\n')}
</body></html>
`
