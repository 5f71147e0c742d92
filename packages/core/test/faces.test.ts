/** Which face of the work things lie on, and how it hangs. */
import { formedPattern } from '../src/form/form-pattern'
import { centreOf } from '../src/form/piece'
import { soundForm } from '../src/report/form-report'
import { errorsIn } from './support'

/** Heights of the middle beads of crosses over a strip, toward the front. */
function crossed(bead: string, before: string, after: string) {
  const crosses = (C: string, G: string) =>
    `for k in 1 to 4\nto strip[6*k - 3]\npick ${C} ${G} ${C} as arm\nthrough <strip[6*k]\npick ${C} >arm.middle ${C}\nthrough strip[6*k - 3]\nend\n`
  const { evaluated, form } = formedPattern(
    `pattern Strip\nbead A ${bead}\nbead C round 15/0\nbead D round 15/0\nbead G round 11/0\nbead H round 11/0\npart p\nweave 8 units of 3A as strip\n${before}\n${crosses('C', 'G')}${after && `${after}\n${crosses('D', 'H')}`}finish\n`,
  )
  expect(errorsIn(evaluated.report)).toEqual([])
  const heights = (role: string) =>
    Array.from({ length: evaluated.work.beads }, (_, at) => at)
      .filter((at) => evaluated.letterOf(evaluated.work.role(at)) === role)
      .map((at) => (form ? centreOf(form.piece, at)[2] : Number.NaN))
  return { first: heights('G'), second: heights('H') }
}

test.each(['faceted round 3 mm', 'cylinder 11/0', 'round 8/0'])(
  'crosses over a strip of %s lie in front, after "turn over" behind, and with both on both faces',
  (bead) => {
    const plain = crossed(bead, '', '')
    expect(Math.min(...plain.first)).toBeGreaterThan(0)
    const behind = crossed(bead, 'turn over', '')
    expect(Math.max(...behind.first)).toBeLessThan(0)
    const both = crossed(bead, '', 'turn over')
    // The strip may bend: it is each pair of crosses that is compared.
    for (const [k, z] of both.first.entries()) expect(z).toBeGreaterThan(both.second[k] as number)
  },
)

test('a piece hangs from what it is told to hang from: that is above everything it hangs', () => {
  const text = (tail: string) =>
    `pattern Ring\nbead A cylinder 11/0\nbead C round 15/0\npart p\nring 30A as wall\nround A\nto wall[9]\nloop 9C as bail\n${tail}`
  const top = (tail: string) => {
    const { evaluated, form } = formedPattern(text(tail))
    expect(errorsIn(evaluated.report)).toEqual([])
    if (!form) throw new Error('no form')
    const high = (bead: number) => centreOf(form.piece, bead)[1]
    const beads = Array.from({ length: evaluated.work.beads }, (_, bead) => bead)
    const bail = beads.filter((bead) => evaluated.letterOf(evaluated.work.role(bead)) === 'C')
    const highest = beads.reduce((a, b) => (high(b) > high(a) ? b : a))
    return bail.includes(highest)
  }
  expect(top('hangs from bail\nfinish')).toBe(true)
})

test('a mirrored text gives the mirrored piece: the same figures, its edges exchanged', () => {
  const strip = (unit: string) => {
    const { evaluated, form } = formedPattern(
      `pattern Strip\nbead A round 11/0\nbead T round 10/0\nbead E round 11/0\npart p\nweave 9 units of ${unit}\n`,
    )
    if (!form) throw new Error('no form')
    const mean = (role: string) => {
      const own = Array.from({ length: evaluated.work.beads }, (_, bead) => bead).filter(
        (bead) => evaluated.letterOf(evaluated.work.role(bead)) === role,
      )
      return own.reduce((sum, bead) => sum + centreOf(form.piece, bead)[1], 0) / own.length
    }
    return { form: soundForm(evaluated.report), thread: evaluated.report.thread.pathMm, upper: mean('T') - mean('E') }
  }
  const [one, other] = [strip('T A E'), strip('E A T')]
  expect(Math.sign(one.upper)).toBe(-Math.sign(other.upper))
  expect(other.thread / one.thread).toBeCloseTo(1, 2)
  expect((other.form?.widthMm ?? 0) / (one.form?.widthMm ?? 1)).toBeCloseTo(1, 2)
  expect((other.form?.pitches[0]?.pitchMm ?? 0) / (one.form?.pitches[0]?.pitchMm ?? 1)).toBeCloseTo(1, 2)
})
