import { formatPattern } from '../src/notation/format'
import { usualThreadSettings } from '../src/thread/settings'
import { plainEdition, writePattern } from '../src/writing/write-pattern'
import { allDemos, counts, demo, errorsIn, evaluate } from './support'

/** What a bead shop teaches: each case as a pattern of the demo shop, its counts by hand beside the arithmetic. */
describe.each<[string, Record<string, number>]>([
  // Peyote in two-drop: ring 40; ten stitches of 2 B, of A and B, of 2 B.
  ['capstan-ring', { A: 40 + 10, B: 20 + 10 + 20 }],
  // A beaded bead: ring 16; 8; two turns of 3 and 2; 8; two turns of 3; 6; two turns of 2; four strands at and four between.
  ['bulrush-beaded-bead', { A: 16 + 8 + 6 + 6 + 4, B: 8 + 10 + 4 + 4, C: 4 * 3 + 4 * 2 }],
  // Netting: 40 / 4 arcs of 5, then 5 and 7 into the ten middles.
  ['reedbed-collar', { A: 40, B: 50 + 70, C: 50 }],
  // Wings: 32 / 4 loops of 7 in front and behind, gathered with 3 and with 5.
  ['heron-wings', { A: 32, B: 56 + 56, C: 8 * 3 + 8 * 5 }],
  // Right angle: 11 units, closed into 12 of a side, an upper and a lower bead each; both edges filled with 12.
  ['mooring-ring', { A: 12, T: 12, E: 12, C: 24 }],
  // Six-sided units: 5 on each of 6 hub beads; a loop of one and six that closes on its second.
  ['lockwheel-pendant', { A: 6, B: 30 + 6, F: 1 }],
  // Standing round a pearl of 10 mm: 2 pi (5 + 0.15 + 0.75) / 2.1 = 17.65; out by 1.65 a row: 22.59, 27.53. A petal of 7 off each of the last.
  ['bullseye-pendant', { A: 17 + 22 + 27, C: 27 * 7 }],
  // Two-hole beads: 8 tiles with 2 between; a row of 8 through their other holes.
  ['lockgate-cuff', { T: 8, B: 16, C: 8 }],
  // A spiral: runs of 1 to 5; a turn is 1.55 mm long, 60 / 1.55 = 38.7, so 39 turns; runs of 5 to 1.
  ['sluice-rope', { A: 6 + 10 + 78 + 10, E: 5 + 39 + 5, B: 15 + 15, C: 39 * 4, G: 39 }],
  // Growing twist: six stitches of 3, 4, 5 and 6.
  ['eddy-twist', { A: 18 + 18 + 36, B: 24, C: 30 }],
  // A flower: ten of 3, of 5, and of as many D (1.5 mm) as cover 5 mm: 3.3, so 3.
  ['marsh-mallow', { A: 10, B: 30, C: 50, D: 30 }],
  // Crosses: a strip of 6 units (1 + 6 x 3), three crosses of C G C and C C.
  ['cross-keys-strip', { A: 19, C: 3 * 4, G: 3 }],
  // A chain of four links of 12 and 6, three joins of 2, a bail of two loops of 5.
  ['towline-chain', { A: 48, B: 24 + 6, D: 10 }],
  // Crossed boxes: 11 units closed into 12; over each a cross of C G C and C C; a frill of 12 x 3.
  ['weir-rosette', { T: 12, E: 12, F: 12, C: 12 * 4 + 36, G: 12 }],
  // Two-hole beads: one and 12 more, each with two B; a loop of 7 at either end.
  ['wharf-chain', { T: 13, B: 24, C: 14 }],
  // A fan: 8; four between; rows of 3 to 7 and two; nine along the hem; six strands of four and a bail.
  ['wherry-fan', { A: 8 + 4 + 5 + 6 + 7 + 8 + 9, B: 9, C: 24 + 9 }],
  // Fifteen round three pearls: odd, so thirteen stitches and one over two.
  ['delta-brooch', { P: 3, A: 12, B: 14 }],
])('%s', (name, expected) => {
  test('has the counts worked by hand, and no fault', () => {
    const report = evaluate(demo(name))
    expect(errorsIn(report)).toEqual([])
    expect(counts(report)).toEqual(expected)
  })
})

test('the twist goes as many rounds as one likes: 4 into the 2nd, 5 into the 3rd, to 8 into the 6th', () => {
  const source = `${demo('eddy-twist').split('part twist')[0]}part twist
  ring 18A
  round 3A into every 3rd bead
  for k in 2 to 6
    let m = k + 2
    round m B into k of each
  end`
  expect(counts(evaluate(source))).toEqual({ A: 36, B: 6 * (4 + 5 + 6 + 7 + 8) })
  // Two further on, the first turn asks for the fourth of three.
  const further = source.replace('2 to 6', '2 to 7').replace('into k of', 'into (k + 2) of')
  expect(errorsIn(evaluate(further))[0]?.message).toMatch(/there is no number 4/)
})

test('another maker’s beads change the arcs of the flower and the rows of the pearl by themselves', () => {
  const other = {
    kind: 'round',
    size: '11/0',
    lengthMm: 1.25,
    acrossMm: 2,
    boreMm: 0.8,
    massMg: 8,
    contact: 2.5,
    bores: 1 as const,
  }
  // 5 mm / 1.25 = 4.
  expect(counts(evaluate(demo('marsh-mallow'), { beads: { D: other } })).D).toBe(40)
  // 2 pi (5 + 0.15 + 0.625) / 2 = 18.1; rows 1.4 out: 22.5, 26.9.
  expect(counts(evaluate(demo('bullseye-pendant'), { beads: { A: other } })).A).toBe(18 + 22 + 26)
})

describe.each(allDemos)('%s', (name) => {
  test('formatting changes nothing but the layout, and formatting again nothing at all', () => {
    const tidy = formatPattern(demo(name))
    expect(formatPattern(tidy)).toBe(tidy)
    expect(counts(evaluate(tidy))).toEqual(counts(evaluate(demo(name))))
    expect(evaluate(tidy).thread).toEqual(evaluate(demo(name)).thread)
  })

  test('every line that stitches is told, and no bead has more thread in it than its hole takes', () => {
    const report = evaluate(demo(name))
    const page = writePattern(report, plainEdition(usualThreadSettings))
    const told = page.parts.flatMap((part) => part.steps.map((step) => step.line))
    const stitched = report.statements.filter((each) => Object.keys(each.added).length > 0).map((each) => each.line)
    expect(told).toEqual(expect.arrayContaining(stitched))
    for (const { room } of report.crowding) expect(room).toBeGreaterThanOrEqual(0)
  })
})
