import { readFileSync } from 'node:fs'
import path from 'node:path'
import { nominalBead } from '../src/catalogue/nominal-beads'
import { beginForm, type Form, mostSettled } from '../src/form/form'
import { formedPattern, formPattern } from '../src/form/form-pattern'
import { type SoundForm, soundForm } from '../src/form/form-report'
import { measure, threadLaid } from '../src/form/measure'
import { Settling } from '../src/form/settle'
import { reachOf } from '../src/form/shape'
import { reckonPattern } from '../src/report/reckon-pattern'
import { bezel, formed, truths } from './form-truth'
import { allDemos, demo } from './support'

describe('closed forms', () => {
  test.each(truths.map((truth) => [truth.name, truth] as const))('%s', (_, { closed, allowed, measured }) => {
    const found = measured()
    expect(Math.abs(found / closed - 1)).toBeLessThanOrEqual(allowed)
  })

  test('docs/form.md publishes what is measured', () => {
    const page = readFileSync(path.join(__dirname, '../../../docs/form.md'), 'utf8')
    for (const { name, closed, measured } of truths) {
      const row = page.split('\n').find((line) => line.startsWith(`| ${name} `))
      const [, , closedSaid, measuredSaid] = (row ?? '').split('|').map((cell) => cell.trim())
      expect([name, closedSaid, measuredSaid]).toEqual([name, `${closed.toFixed(2)} mm`, `${measured().toFixed(2)} mm`])
    }
  })

  test('contact: end to end as close as L, side by side as d, and nothing smaller in between for a cylinder', () => {
    expect(2 * reachOf(1.3, 1.6, 4, 1)).toBeCloseTo(1.3, 9)
    expect(2 * reachOf(1.3, 1.6, 4, 0)).toBeCloseTo(1.6, 9)
    for (let c = 0; c <= 1; c += 0.05) expect(2 * reachOf(1.3, 1.6, 4, c)).toBeGreaterThanOrEqual(1.3)
  })
})

describe('a stone of 14 mm', () => {
  const held = (count: number) => soundForm(bezel(count).reckoned.report)?.held[0]

  test('36 cylinders with smaller beads on both edges close over it, front and back', () => {
    const margin = held(36)
    expect(margin?.frontMm).toBeGreaterThan(0.3)
    expect(margin?.backMm).toBeGreaterThan(0.3)
    expect(bezel(36).reckoned.report.form?.findings[0]).toMatchObject({ line: 11, tone: 'good' })
  })

  test('40 leave it loose in front, and it is said what to do', () => {
    expect(held(40)?.frontMm).toBeLessThan(0.05)
    const [finding] = bezel(40).reckoned.report.form?.findings ?? []
    expect(finding).toMatchObject({ line: 11, tone: 'trouble' })
    expect(finding?.text).toMatch(/loose by 0\.\d mm in front.*one more round of C in front/)
  })
})

describe('the same piece', () => {
  const source = demo('windlass-pendant')

  test('comes to the same place, to the bit', () => {
    const [one, other] = [formedPattern(source), formedPattern(source)]
    expect(one.form?.piece.at).toEqual(other.form?.piece.at)
  })

  test('by whatever slices it is settled', () => {
    const slowly = formPattern(source, {}, 7)
    let next = slowly.next()
    while (!next.done) next = slowly.next()
    expect(next.value.form?.piece.at).toEqual(formedPattern(source).form?.piece.at)
  })

  test('with its beads and marks named otherwise has the same figures', () => {
    const renamed = source
      .replace(/(?<![a-zA-Z])A(?![a-zA-Z])/g, 'K')
      .replace(/(?<![a-zA-Z])B(?![a-zA-Z])/g, 'A')
      .replace(/\bbail\b/g, 'hook')
    const figures = (text: string) => {
      const { report } = formedPattern(text).reckoned
      const form = soundForm(report) as SoundForm
      const { thread } = report
      return [form?.widthMm, form?.heightMm, form?.depthMm, form?.held[0]?.frontMm, thread.pathMm]
    }
    expect(figures(renamed)).toEqual(figures(source))
  })

  test.each(['mooring-ring', 'reedbed-collar', 'cross-keys-strip'])(
    '%s turned about settles alike: no figure is off by more than 0.5 %%',
    (name) => {
      const reckoned = reckonPattern(demo(name))
      const straight = beginForm(reckoned)
      straight.settling.run(5000)
      const begun = beginForm(reckoned)
      const { at } = begun.piece
      const [cos, sin] = [Math.cos(0.7), Math.sin(0.7)]
      for (let p = 0; p < at.length; p += 3) {
        const [x, y] = [at[p] as number, at[p + 1] as number]
        at[p] = x * cos - y * sin
        at[p + 1] = x * sin + y * cos
      }
      const turned = { ...begun, settling: new Settling(begun.piece) }
      turned.settling.run(5000)
      const [a, b] = [measure(reckoned, straight), measure(reckoned, turned)]
      const path = (form: Form) => threadLaid(form.piece).reduce((sum, each) => sum + each, 0)
      expect(Math.abs(path(turned) / path(straight) - 1)).toBeLessThan(0.005)
      expect(Math.abs(b.depthMm / a.depthMm - 1)).toBeLessThan(0.005)
      for (const [i, { acrossMm }] of a.openings.entries())
        expect(Math.abs((b.openings[i]?.acrossMm ?? 0) / acrossMm - 1)).toBeLessThan(0.005)
      for (const [i, { pitchMm }] of a.pitches.entries())
        expect(Math.abs((b.pitches[i]?.pitchMm ?? 0) / pitchMm - 1)).toBeLessThan(0.005)
    },
  )
})

test.each(allDemos)('%s settles; no two of its beads are pressed, every bead stays in reach of its thread', (name) => {
  const { form, unformed, reckoned } = formedPattern(demo(name))
  expect(unformed).toBeUndefined()
  const strain = reckoned.report.form?.strain ?? []
  expect(strain.filter(({ what }) => what === 'pressed')).toEqual([])
  expect(Math.max(0, ...strain.map(({ worstMm }) => worstMm))).toBeLessThan(1.3)
  expect(form?.piece.at.every(Number.isFinite)).toBe(true)
})

describe('fed back', () => {
  test('thread is measured: the path is the beads and the gaps as they lie, line by line', () => {
    const { reckoned } = formed('bead A round 11/0', 'part p', 'string 30A', 'finish')
    const { thread, statements } = reckoned.report
    // Thirty beads end to end leave no gaps to speak of; by stitch a tenth of a width each would be added.
    expect(thread.pathMm).toBeGreaterThan(45)
    expect(thread.pathMm).toBeLessThan(45.5)
    expect(statements.reduce((sum, each) => sum + each.threadMm, 0)).toBeCloseTo(thread.pathMm, 6)
  })

  test('a length without a pitch is sized by the form', () => {
    const source = 'bead A round 11/0\npart p\nring 6A\nuntil length 60 mm\nround A\nround A\nend\n'
    const plain = reckonPattern(source).report
    const said = (report: typeof plain) => report.diagnostics.find(({ line }) => line === 4)?.message
    expect(said(plain)).toMatch(/^29 repeats for 60 mm: .* By a plain estimate of 2\.10 mm a repeat, until/)
    const { report } = formedPattern(source).reckoned
    const pitch = soundForm(report)?.pitches[0]?.pitchMm ?? 0
    expect(pitch).toBeGreaterThan(2)
    expect(said(report)).toContain(`The form has ${pitch.toFixed(2)} mm a repeat.`)
    expect(report.statements.find(({ action }) => action.type === 'repeat')?.action).toMatchObject({
      times: Math.round(60 / pitch),
      pitch: 'form',
    })
  })
})

describe('what shows', () => {
  test('a wall too low for its stone is told by its lines, and so is a step that passes from far away', () => {
    const wall = formedPattern(demo('sluicegate-pendant')).reckoned.report.form?.findings
    expect(wall?.find(({ line }) => line === 19)).toMatchObject({
      tone: 'trouble',
      text: expect.stringMatching(/^Front round 1: thread shows, \d\.\d mm at each of \d+ places/),
    })
    const far = formed('bead A round 11/0', 'part p', 'ring 40A as base', 'through base[20]', 'finish')
    expect(far.reckoned.report.form?.findings).toContainEqual(expect.objectContaining({ line: 6, tone: 'trouble' }))
  })

  test('a tube is a tube, and a flat net lies flat', () => {
    const tube = formed('bead A cylinder 11/0', 'part p', 'ring 40A', ...Array.from({ length: 8 }, () => 'round A'))
    expect(tube.reckoned.report.form?.findings.map(({ text }) => text)).toContainEqual(
      expect.stringMatching(/cup or a tube/),
    )
    const net = formed('bead A round 11/0', 'part p', 'ring 12A', 'round 3A into every 3rd bead')
    expect(net.reckoned.report.form?.findings[0]?.text).toBe('It lies flat.')
  })
})

describe('bad input', () => {
  test('a catalogue record that cannot be a bead is named, and the rest is still reckoned', () => {
    const record = nominalBead('round', '11/0')
    const broken = record && { ...record, lengthMm: 0 }
    const made = formedPattern('bead A round 11/0\npart p\nring 12A\n', broken ? { beads: { A: broken } } : {})
    expect(made.form).toBeUndefined()
    expect(made.unformed?.why).toMatch(/^round 11\/0 has a length, width or contact exponent that no bead has/)
    expect(made.reckoned.report.beads[0]?.each).toBe(12)
  })

  test('more beads than are settled have no form, and it is said', () => {
    const made = formedPattern(`bead A round 11/0\npart p\nring 2000A\n${'round A\n'.repeat(19)}`)
    expect(made.reckoned.work.beads).toBeGreaterThan(mostSettled)
    expect(made.unformed?.why).toMatch(/^21,000 beads are more than the 12,000/)
    expect(made.form).toBeUndefined()
    expect(made.reckoned.report.form).toBeUndefined()
  })

  test.each([
    ['a thread that passes a bead again and again', 'ring 6A\nthrough new[1]\nthrough new[1]\nthrough new[1]'],
    ['a bead alone', 'string A'],
    ['a loop on itself', 'pick 2A\nthrough new[1]'],
    ['a strip joined to its own end', 'weave 2 units of 3A as s\njoin to s.first'],
    ['one bead round an edge of many', 'ring 40A\nround A into every 40th bead'],
    ['a strand of two thousand', 'string 2000A'],
  ])('%s comes to an end, and everything lies somewhere', (_, lines) => {
    const { form, unformed } = formedPattern(`bead A round 11/0\npart p\n${lines}\n`)
    expect(form?.piece.at.every(Number.isFinite)).toBe(true)
    expect(form?.settling.progress.settled || unformed?.why !== undefined).toBe(true)
  })

  test('what has not come to rest keeps the plain estimates, and says so', () => {
    const reckoned = reckonPattern(demo('windlass-pendant'))
    const form = beginForm(reckoned)
    const hurried = { ...form, settling: new Settling(form.piece, 'usual', 20) }
    expect(hurried.settling.run(100)).toMatchObject({ settled: false, spent: true, iterations: 20 })
  })
})
