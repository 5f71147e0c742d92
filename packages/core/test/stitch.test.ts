import fc from 'fast-check'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { beadOf } from '../src/stitch/hole'
import { usualThreadSettings } from '../src/thread/settings'
import { counts, demo, demoNames, errorsIn, evaluate, head, passes } from './support'

describe('passes', () => {
  test('a ring is strung, passed again, and a round of peyote takes every second bead, then steps up', () => {
    expect(passes(`${head}ring 6A\nround B`)).toEqual([
      ...['+0', '+1', '+2', '+3', '+4', '+5'],
      ...['0', '1', '2', '3', '4', '5'],
      // picks up over 0, 2 and 4, which stay down, and passes 1, 3 and 5, which stand up
      ...['+6', '1', '+7', '3', '+8', '5'],
      '6',
    ])
  })

  test('the next round passes the beads of the last, beginning behind the step up', () => {
    expect(passes(`${head}ring 6A\nround B\nround C`).slice(19)).toEqual(['+9', '7', '+10', '8', '+11', '6', '9'])
  })

  test('other edge goes down the threads that are there, to a bead that was left down', () => {
    // from 6 (second row) through 1, which the thread went into from 6, and 2, which follows 1 in the ring
    expect(passes(`${head}ring 6A\nround B\nother edge\nround C`).slice(19)).toEqual([
      ...['1', '2'],
      ...['+9', '4', '+10', '0', '+11', '2'],
      '9',
    ])
  })

  test('a round goes the way that the needle faces when it has come to a bead of the edge', () => {
    const source = `${head}ring 8A as base\npick 2B\nthrough <base[4]\nto base[7]\nround C no step`
    // turned round at 3, it comes to 6 by way of 2, 1, 0 and 7, and goes on to 4, 2, 0
    expect(passes(source).slice(16)).toEqual([
      ...['+8', '+9', '3<', '2<', '1<', '0<', '7<', '6<'],
      ...['+10', '4<', '+11', '2<', '+12', '0<', '+13', '6<'],
    ])
  })

  test('a round goes on from the bead of the edge that has been passed', () => {
    expect(passes(`${head}ring 8A as base\nthrough base[5]\nround C no step`).slice(16)).toEqual([
      '4',
      ...['+8', '6', '+9', '0', '+10', '2', '+11', '4'],
    ])
    expect(passes(`${head}ring 8A as base\npick B >base[5]\nround C no step`).slice(16)).toEqual([
      ...['+8', '4'],
      ...['+9', '6', '+10', '0', '+11', '2', '+12', '4'],
    ])
    // Down again through the bead that the loop has left: it goes back the other way.
    expect(passes(`${head}ring 8A as base\nto base[5]\nloop 2B back\nround C no step`).slice(-8)).toEqual([
      ...['+10', '2<', '+11', '0<', '+12', '6<', '+13', '4<'],
    ])
  })

  test('two-drop takes beads two at a time', () => {
    expect(passes(`${head}ring 8A\nround 2B`).slice(16)).toEqual([
      ...['+8', '+9', '2', '3', '+10', '+11', '6', '7'],
      ...['8', '9'],
    ])
  })

  test('a stitch without a bead is a decrease: one bead fewer stands up', () => {
    const source = `${head}ring 8A\nround B, -\nround C`
    // round 1: +8 over 0, through 1; nothing over 2, through 3; +9; ...; then two beads stand up
    expect(passes(source).slice(16)).toEqual([
      ...['+8', '1', '3', '+9', '5', '7', '8'],
      ...['+10', '9', '+11', '8', '10'],
    ])
  })

  test('when the first stitch is the decrease, the step up passes its anchor once more', () => {
    expect(passes(`${head}ring 8A\nround -, B`).slice(16)).toEqual(['1', '+8', '3', '5', '+9', '7', '1', '8'])
  })

  test('a loop goes again through the bead it left, and reinforcing goes round it', () => {
    expect(passes(`${head}ring 4A\nloop 3C\nreinforce 2`).slice(8)).toEqual([
      ...['+4', '+5', '+6', '3'],
      ...['4', '5', '6', '3', '4', '5', '6', '3'],
    ])
  })

  test('reinforcing a round goes through its beads and the anchors between', () => {
    expect(passes(`${head}ring 6A\nround B\nreinforce`).slice(19)).toEqual(['1', '7', '3', '8', '5', '6'])
  })

  test('a shop that only knots does not pass the ring again', () => {
    const settings = { ...usualThreadSettings, closing: 'knot' as const }
    expect(evaluatePattern(`${head}ring 6A`, { settings }).work.passes).toBe(6)
  })
})

describe('the demo bezels, counted by hand', () => {
  test('Windlass, petite: ring 36 (27 A, 9 B), rounds of 18: A 18, C 18, C 18; back A 18, C 18, C 18; loop 9 C', () => {
    expect(counts(evaluate(demo('windlass-pendant'), { size: 'petite' }))).toEqual({
      A: 27 + 18 + 18,
      B: 9,
      C: 4 * 18 + 9,
    })
  })

  test('Windlass, classic: ring 44 (33 A, 11 B), rounds of 22', () => {
    expect(counts(evaluate(demo('windlass-pendant')))).toEqual({ A: 33 + 22 + 22, B: 11, C: 4 * 22 + 9 })
  })

  test('Windlass in a longer cylinder: 46.65 mm / 1.4 = 33.3, so 32, and every round follows', () => {
    const longer = {
      kind: 'cylinder',
      size: '11/0',
      lengthMm: 1.4,
      acrossMm: 1.7,
      boreMm: 0.8,
      massMg: 5.9,
      contact: 4,
      bores: 1 as const,
    }
    const report = evaluate(demo('windlass-pendant'), { size: 'petite', beads: { A: longer } })
    expect(counts(report)).toEqual({ A: 24 + 16 + 16, B: 8, C: 4 * 16 + 9 })
  })

  test('Heron, long: ring 40, rounds A 20, B 20, C 20; back C 20, C 20; loop 2 C, 1 A, 2 C; a pair of them', () => {
    const report = evaluate(demo('heron-earrings'))
    expect(counts(report)).toEqual({ A: 40 + 20 + 1, B: 20, C: 60 + 4 })
    expect(report.beads.map((bead) => bead.total)).toEqual([122, 40, 128])
  })

  test('Sluicegate, small: ring 40, round 20 A, then 16 C with 4 decreases; back 20 B, 16 C; loop 6 D, 1 C', () => {
    expect(counts(evaluate(demo('sluicegate-pendant')))).toEqual({ A: 20 + 20, B: 20 + 20, C: 16 + 16 + 1, D: 6 })
  })

  test('Sluicegate, large: girth 68.57 + 2.51 = 71.08, / 1.3 = 54.7, so 56: 28 a round, 24 where it decreases', () => {
    expect(counts(evaluate(demo('sluicegate-pendant'), { size: 'large' }))).toEqual({
      A: 28 + 28,
      B: 28 + 28,
      C: 24 + 24 + 1,
      D: 6,
    })
  })

  test.each(demoNames)('%s has no fault in any size, and says how its stone sits', (name) => {
    for (const size of evaluate(demo(name)).sizes) {
      const report = evaluate(demo(name), { size })
      expect(errorsIn(report)).toEqual([])
      expect(report.size).toBe(size)
      expect(report.fits).toHaveLength(1)
      expect(['snug', 'loose']).toContain(report.fits[0]?.verdict)
    }
  })
})

describe('thread along the path', () => {
  test('a ring of 6 cylinders passed twice: 12 x 1.3 + 11 gaps of 0.1 x 1.6', () => {
    expect(evaluate(`${head}ring 6A`).thread.pathMm).toBeCloseTo(15.6 + 1.76, 6)
  })

  test('a round of peyote: 7 passes of 1.3 and 7 gaps of 0.5 x 1.6', () => {
    expect(evaluate(`${head}ring 6A\nround B`).statements[1]?.threadMm).toBeCloseTo(9.1 + 5.6, 6)
  })

  test('a gap between two kinds of bead is evaluated from the mean of their widths', () => {
    // three C (1.0) and three anchors and a step up (C): 4 x 1.0 + 3 x 1.3; seven gaps of 0.5 x (1.6 + 1.5) / 2
    expect(evaluate(`${head}ring 6A\nround C`).statements[1]?.threadMm).toBeCloseTo(7.9 + 7 * 0.775, 6)
  })
})

test('a path too long for one thread says in which lines the next lengths begin', () => {
  // A round is 41 passes of 1.3 mm and 41 gaps of 0.8: 86.1 mm; the ring 116.6. Of 3560.6 mm a third ends in the 13th round
  // (1070 / 86.1 = 12.4), two thirds in the 27th (2257 / 86.1 = 26.2).
  const report = evaluate(`${head}ring 40A\n${'round A\n'.repeat(40)}`)
  const [thread] = report.threads
  expect(thread?.cutsMm).toHaveLength(3)
  expect(thread?.furtherFrom).toEqual([20, 34])
  const laid = (line: number) =>
    report.statements.filter((each) => each.line <= line).reduce((sum, each) => sum + each.threadMm, 0)
  for (const [i, line] of (thread?.furtherFrom ?? []).entries()) {
    const share = ((i + 1) * report.thread.pathMm) / 3
    expect(laid(line - 1)).toBeLessThan(share)
    expect(laid(line)).toBeGreaterThanOrEqual(share - 1e-6)
  }
})

describe('properties', () => {
  const bezel = fc
    .record({
      half: fc.integer({ min: 2, max: 40 }),
      rounds: fc.array(
        fc.constantFrom('round A', 'round B', 'round C', 'reinforce', 'other edge', 'loop 3C', 'to any A'),
        { maxLength: 8 },
      ),
    })
    .map(({ half, rounds }) => `${head}ring ${half * 2}A\nround B\n${rounds.join('\n')}\nfinish`)

  test('counts are the new passes, by role, and every bead is picked up once', () => {
    fc.assert(
      fc.property(bezel, (source) => {
        const { report, work, letterOf } = evaluatePattern(source)
        expect(errorsIn(report)).toEqual([])
        const seen = new Map<string, number>()
        const born = new Set<number>()
        for (let pass = 0; pass < work.passes; pass++) {
          const bead = beadOf(work.holeAt(pass))
          if (!work.isNew(pass)) {
            expect(born.has(bead)).toBe(true)
            continue
          }
          expect(born.has(bead)).toBe(false)
          born.add(bead)
          const letter = letterOf(work.role(bead))
          seen.set(letter, (seen.get(letter) ?? 0) + 1)
        }
        expect(counts(report)).toEqual(Object.fromEntries([...seen].sort()))
        const added = report.statements.flatMap((statement) => Object.values(statement.added))
        expect(added.reduce((sum, each) => sum + each, 0)).toBe(work.beads)
      }),
    )
  })

  test('the thread of the lines is the thread of the piece, and a line more is never less thread', () => {
    fc.assert(
      fc.property(bezel, (source) => {
        const report = evaluate(source)
        const lines = report.statements.reduce((sum, statement) => sum + statement.threadMm, 0)
        expect(lines).toBeCloseTo(report.thread.pathMm, 6)
        expect(evaluate(source.replace('finish', 'round A\nfinish')).thread.pathMm).toBeGreaterThan(
          report.thread.pathMm,
        )
      }),
    )
  })

  test('other letters change the letters of the report and nothing else', () => {
    fc.assert(
      fc.property(bezel, (source) => {
        const renamed = source.replace(
          /\b(bead |ring \d+|round |loop 3|any )([ABC])\b/g,
          (_, before, letter) => `${before}${letter}${letter}`,
        )
        const [plain, other] = [evaluate(source), evaluate(renamed)]
        expect(other.beads.map(({ each }) => each)).toEqual(plain.beads.map(({ each }) => each))
        expect(other.thread).toEqual(plain.thread)
      }),
    )
  })
})
