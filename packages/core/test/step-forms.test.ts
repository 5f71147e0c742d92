/** The work as it lies at each step. */

import { allStepForms, sceneAfter } from '../src/drawing/step-views'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { formedPattern } from '../src/form/form-pattern'
import { stepForms, stepsOf } from '../src/form/step-forms'
import { beadOf } from '../src/stitch/hole'
import type { Work } from '../src/stitch/work'
import { demo } from './support'

const columns = (work: Work) => ({
  roles: Array.from({ length: work.beads }, (_, bead) => work.role(bead)),
  holes: Array.from({ length: work.passes }, (_, pass) => work.holeAt(pass)),
  stitchGaps: Array.from({ length: work.passes }, (_, pass) => work.gapAt(pass)),
  threads: work.threads.filter((at) => at < work.passes),
})

test.each(['marsh-mallow', 'windlass-pendant', 'reedbed-collar'])(
  '%s as it was after a line is the same text cut off there',
  (name) => {
    const source = demo(name)
    const { work, report } = evaluatePattern(source)
    const lines = source.split('\n')
    for (const [doing, from] of work.doings.entries()) {
      const to = work.doings[doing + 1] ?? work.passes
      const line = report.statements[work.statementAt(from)]?.line ?? 0
      const next = report.statements.find((each) => each.line > line)
      const cut = evaluatePattern(lines.slice(0, next ? next.line : line).join('\n')).work
      // A round steps up as far as the next line needs, so that line is read along; its own passes are left out.
      const early = work.upTo(to, () => true)
      expect(columns(cut.upTo(to, () => true))).toEqual(columns(early))
      expect(early.beads).toBe(Math.max(...columns(early).holes.map(beadOf)) + 1)
    }
  },
)

test('a ring lies flat while it is a ring, and stands up with its rounds; a stone is there once it has been laid in', () => {
  const { evaluated, form } = formedPattern(demo('windlass-pendant'))
  if (!form) throw new Error('no form')
  const steps = allStepForms(evaluated, form)
  expect(steps.map(({ passes }) => passes)).toEqual(stepsOf(evaluated))
  const stones = steps.map((step) => step.form.seats.filter(({ stone }) => stone).length)
  expect(stones[0]).toBe(0)
  expect(stones.at(-1)).toBe(1)
  expect([...stones].sort()).toEqual(stones)
  const depth = ({ piece }: (typeof steps)[number]['form']) => {
    const z = [...piece.at].filter((_, i) => i % 3 === 2)
    return Math.max(...z) - Math.min(...z)
  }
  const [first, last] = [steps[0], steps.at(-1)]
  expect(first && last && depth(first.form) < 0.4 * depth(last.form)).toBe(true)
  for (const step of steps) expect(step.form.settling.progress.settled).toBe(true)
})

test('the steps of a long piece are bounded: every line the first time, and no more beads in all than can be shown', () => {
  const long = `pattern Long\nbead A cylinder 11/0\npart p\nring 20A\nrepeat 300\nround A\nend\nfinish\n`
  const { work } = evaluatePattern(long)
  const steps = stepsOf({ work })
  expect(steps.at(-1)).toBe(work.passes)
  expect(steps.length).toBeLessThan(60)
  expect(steps).toEqual([...steps].sort((a, b) => a - b))
})

test('a line is drawn on the work as it lies then', () => {
  const { evaluated, form } = formedPattern(demo('marsh-mallow'))
  if (!form) throw new Error('no form')
  const statement = evaluated.report.statements.findIndex(({ line }) => line === 12)
  const scene = sceneAfter(statement, evaluated, form)
  expect(scene.beads.length).toBeLessThan(evaluated.work.beads)
  expect([...stepForms(evaluated, form, [work(evaluated)])].at(-1)?.form).toBe(form)
})
const work = ({ work }: { work: Work }) => work.passes
