import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { reconcile } from '../src/kit/reconcile'
import { formatPattern } from '../src/notation/format'
import { bandLength, fingerSizes, fingerSystems, fromJapan, fromUk, fromUs, nearestFinger } from '../src/sizing/finger'
import { fitLength } from '../src/sizing/repeats'
import { fitStand, ringFits, spreadIncreases } from '../src/sizing/stand'
import { beadOf, entryOf, exitOf, hole } from '../src/stitch/hole'
import { walkedAlong } from '../src/stitch/walked-along'
import { maxPassesThrough, sayCrowding } from '../src/thread/crowding'
import { counts, demo, errorsIn, evaluate, head, passes } from './support'

const lines = (text: string) => evaluate(head + text)

describe('passes of each technique', () => {
  test('netting goes into every third bead and then into the middles, stepping up to the first middle', () => {
    expect(passes(`${head}ring 6A\nround 3B into every 3rd bead\nround C into middles`).slice(12)).toEqual([
      ...['+6', '+7', '+8', '2', '+9', '+10', '+11', '5'],
      // up to the middle of the first arc, where the next round begins
      ...['6', '7'],
      ...['+12', '10', '+13', '7', '12'],
    ])
  })

  test('^ lets one bead of a group stand up and leaves the rest outside', () => {
    expect(passes(`${head}ring 4A\nround B^ 2C\nround A`).slice(8)).toEqual([
      ...['+4', '+5', '+6', '1', '+7', '+8', '+9', '3', '4'],
      ...['+10', '7', '+11', '4', '10'],
    ])
  })

  test('> passes a bead on the way and < comes back through its own', () => {
    expect(passes(`${head}ring 4A as low\npick 2B >low[2] C <2B`).slice(8)).toEqual(['+4', '+5', '1', '+6', '5<', '4<'])
  })

  test('flat work goes back along every second bead of the row, and then along what was added', () => {
    expect(passes(`${head}string 4A\nrow B\nrow C`)).toEqual([
      ...['+0', '+1', '+2', '+3'],
      ...['+4', '2<', '+5', '0<'],
      ...['+6', '5<', '+7', '4<'],
    ])
  })

  test('a right-angle strip shares a bead between units and steps on to the one opposite', () => {
    expect(passes(`${head}weave 2 units of 3A`)).toEqual([
      ...['+0', '+1', '+2', '+3', '0', '1', '2'],
      ...['+4', '+5', '+6', '2', '4', '5'],
    ])
  })

  test('a loop over two closes round the last two; back goes down again; go steps on along it', () => {
    expect(passes(`${head}string 3A\nloop 2B over 2\ngo 1`)).toEqual(['+0', '+1', '+2', '+3', '+4', '1', '2', '3'])
    expect(passes(`${head}string 3A\nloop 2B back`)).toEqual(['+0', '+1', '+2', '+3', '+4', '2<'])
  })

  test('a fringe turns at its end beads, or at its last where it has none; keep leaves the top out', () => {
    expect(passes(`${head}string A\nfringe 2B end C`)).toEqual(['+0', '+1', '+2', '+3', '2<', '1<'])
    expect(passes(`${head}string A\nfringe 3B`)).toEqual(['+0', '+1', '+2', '+3', '2<', '1<'])
    expect(passes(`${head}string A\nfringe 3B keep 1`)).toEqual(['+0', '+1', '+2', '+3', '2<'])
  })

  test('standing beads are passed down and up, and the last is drawn to the first', () => {
    expect(passes(`${head}stand A round 4 mm x 3`)).toEqual(['+0', '0<', '+1', '1<', '+2', '2<', '0', '0<'])
  })

  test('turn goes over into the other hole of a two-hole bead', () => {
    const twin = 'pattern P\nbead T twin tile 5 x 5 x 1.9 mm\npart p\nstring 2T\nturn'
    expect(passes(twin)).toEqual(['+0', '+1', '1<'])
    expect(errorsIn(lines('string 2A\nturn'))[0]?.message).toContain('one bore only')
  })

  test('a loop closes on its own second bead', () => {
    expect(passes(`${head}pick C 6B\nthrough new[2]`).slice(-2)).toEqual(['+6', '1'])
  })

  test('next goes on along a mark from where it was left; go back retraces the thread; a ring may be knotted', () => {
    const marked = `${head}ring 5A as low\nthrough low next 2\nthrough low next 2\nthrough low next 2`
    expect(passes(marked).slice(10)).toEqual(['0', '1', '2', '3', '4', '0'])
    expect(passes(`${head}string 4A\ngo back 2`).slice(4)).toEqual(['2<', '1<'])
    expect(errorsIn(lines('string 2A\ngo back 2'))[0]?.message).toContain('passed only 2')
    const knotted = lines('ring 6A knot').statements[0]?.action
    expect(knotted).toMatchObject({ type: 'ring', closing: 'knot and pass again' })
  })

  test('an odd ring runs on as a spiral, or closes by one stitch over two', () => {
    expect(counts(lines('ring 15A\nround B\nround B'))).toEqual({ A: 15, B: 15 })
    expect(errorsIn(lines('ring 15A\nround 2B'))[0]?.mend).toMatch(/^12 .* or 16 .* would do/)
    expect(counts(lines('ring 15A\nround B x13, B over 2 into every bead'))).toEqual({ A: 15, B: 14 })
  })
})

describe('repeats', () => {
  test.each([
    ['repeat 3\nloop 2B\nend', 'loop 2B\nloop 2B\nloop 2B'],
    ['for k in 1 to 3\nloop k B\nend', 'loop 1B\nloop 2B\nloop 3B'],
    ['for k in 3 to 1\nloop k B\nend', 'loop 3B\nloop 2B\nloop 1B'],
    ['for k in 2, 5\nloop k B\nend', 'loop 2B\nloop 5B'],
    ['repeat 2\nrepeat 2\nloop B\nend\nround C\nend', 'loop B\nloop B\nround C\nloop B\nloop B\nround C'],
    ['until length 21 mm, pitch 3 mm, multiple 2\nloop B\nend', 'loop B\n'.repeat(6)],
  ])('%j unrolled by hand changes nothing', (repeated, unrolled) => {
    const start = `${head}ring 12A\nround C\n`
    expect(passes(start + repeated)).toEqual(passes(start + unrolled))
    expect(evaluate(start + repeated).thread).toEqual(evaluate(start + unrolled).thread)
  })

  test('the way between the places of at each is thread of its own line', () => {
    const report = lines('ring 8A as base\nround C\nat each A in base\nloop 2B\nend')
    const told = report.statements.reduce((sum, each) => sum + each.threadMm, 0)
    expect(told).toBeCloseTo(report.thread.pathMm, 6)
    expect(report.statements.find(({ text }) => text.startsWith('at each'))?.threadMm).toBeGreaterThan(0)
  })

  test('at each goes to every place in turn', () => {
    expect(counts(lines('ring 4A as base\nat each A in base\nloop 2B\nend'))).toEqual({ A: 4, B: 8 })
  })

  test.each([
    ['ring 6A\nrepeat 2\nround B', 8, /has no end/],
    ['ring 6A\nend', 8, /nothing for this "end"/],
    ['repeat 2.5\nring 6A\nend', 7, /not a whole/],
    ['repeat 999999999\nring 6A\nend', 7, /more than any piece/],
    ['until length 20 mm, pitch 0 mm\nring 6A\nend', 7, /above 0/],
    ['until pitch 2 mm\nring 6A\nend', 7, /needs a length/],
    ['use petal', 7, /no part "petal"/],
    ['skip if rim off', 7, /no option "rim"/],
  ])('%j is a fault of line %i', (text, line, message) => {
    const [fault] = errorsIn(lines(text))
    expect([fault?.line, fault?.message]).toEqual([line, expect.stringMatching(message)])
  })

  test('a part may be made more than once, used in another, and left out by an option', () => {
    const source = `option rim on\n${head}ring 12A\nuse edge\npart edge\nskip if rim off\nround B\n`
    expect(counts(evaluate(source))).toEqual({ A: 12, B: 6 })
    expect(counts(evaluate(source, { options: { rim: false } }))).toEqual({ A: 12 })
    expect(counts(evaluate(`${head}part petal x 3\nring 6A\nfinish`))).toEqual({ A: 18 })
    expect(evaluate(`${head}part petal x 3\nring 6A\nfinish`).threads).toHaveLength(3)
    expect(errorsIn(evaluate(`${head}use a\npart a\nuse b\npart b\nuse a`))[0]?.message).toContain('would use itself')
  })
})

describe('sizing', () => {
  test('rounds 11/0 round a core of 12 mm: 2 pi (6 + 0.15 + 0.75) / 2.1 = 20.6; the gap of 1.35 mm may take one more', () => {
    const bead = { lengthMm: 1.5, acrossMm: 2.1, contact: 2.5 }
    expect(fitStand(6, bead, 0.15)).toMatchObject({ count: 20, oneMore: true, outerRadiusMm: 7.65 })
    // Cylinders touch at the foot: 2 pi 6.15 / 1.6 = 24.2.
    expect(fitStand(6, { lengthMm: 1.3, acrossMm: 1.6, contact: 4 }, 0.15).count).toBe(24)
    expect([7.2, 7.25, 8.25, 8.3].map((radius) => ringFits(radius, 7.65))).toEqual([false, true, true, false])
  })

  test('increases are spread evenly, never at the first or the last', () => {
    expect(spreadIncreases(20, 5)).toEqual([2, 6, 10, 13, 17])
    expect(spreadIncreases(17, 0)).toEqual([])
    for (const at of spreadIncreases(9, 7)) expect(at > 0 && at < 8).toBe(true)
  })

  test('180 mm with 25 mm of ends at 8.4 mm: 18.45, so 18 (176.2 mm) of an even number', () => {
    expect(fitLength(180, 8.4, 25, 2)).toMatchObject({ best: 18, candidates: [{ count: 18 }, { count: 20 }] })
    expect(fitLength(180, 8.4, 25, 2).candidates[0]?.lengthMm).toBeCloseTo(176.2, 6)
    expect(() => fitLength(20, 8.4, 25)).toThrow('The ends alone')
  })

  test('finger sizes: US 7 is 54.4 mm inside, UK N 1/2 is 37.8 + 13.5 x 1.25, Japan 14 is 17.33 mm across', () => {
    expect(fromUs(7)).toBeCloseTo(54.4, 1)
    expect(fromUk('N 1/2')).toBeCloseTo(54.675, 6)
    expect(fromJapan(14)).toBeCloseTo(Math.PI * 17.3333, 3)
    expect(bandLength(54.4, 2)).toBeCloseTo(60.68, 2)
    expect(() => fromUk('7')).toThrow('not a UK ring size')
  })

  test.each(fingerSystems)('every finger between 40 and 80 mm has a size of %s within half a step of it', (system) => {
    const sizes = fingerSizes(system)
    const step = Math.max(...sizes.slice(1).map(({ mm }, k) => mm - (sizes[k]?.mm ?? 0)))
    for (let mm = 41; mm <= 69; mm += 0.7)
      expect(Math.abs(nearestFinger(mm, system).mm - mm)).toBeLessThan(step / 2 + 1e-9)
    // What is chosen is found again.
    for (const { size, mm } of sizes) expect(nearestFinger(mm, system).size).toBe(size)
  })
})

describe('what a ring must divide by is worked out from the rounds that follow', () => {
  const round18 =
    'pattern P\nbead A cylinder 11/0\nbead B cylinder 11/0\nstone S round 18 mm\npart p\nlet n = fit(S, A)\n'
  const ringOf = (text: string) => {
    const report = evaluate(round18 + text)
    expect(errorsIn(report)).toEqual([])
    return [
      report.statements[0]?.action.type === 'let' && report.statements[0].action.amount,
      report.diagnostics.find(({ severity }) => severity === 'note')?.message,
    ]
  }

  test.each([
    // 45.4 is the ideal: 46 where only an even ring is wanted.
    ['ring A x n\nround A', 46, /^46 A/],
    // A motif of four: 44 or 48.
    ['ring (3A B) x n/4\nround A', 44, /need a multiple of 4\. 44 A/],
    // A list of five stitches in a round of n/2: tens.
    ['ring A x n\nround A x4, 2A', 50, /need a multiple of 10\. 50 A/],
    // Two-drop wants fours; halved again by a decrease at every second stitch, eights.
    ['ring A x n\nround 2A\nround A, -', 48, /need a multiple of 8\. 48 A/],
  ])('%j has a ring of %i', (text, count, message) => {
    const [found, told] = ringOf(text)
    expect(found).toBe(count)
    expect(told).toMatch(message)
  })

  test('a multiple that is written overrides what would be worked out', () => {
    expect(errorsIn(evaluate(`${round18.replace('A)', 'A, multiple 2)')}ring (3A B) x n/4`))[0]?.message).toContain(
      'not a whole count',
    )
  })
})

describe('said in a line', () => {
  test('square stitch goes through the bead below the way it lies, and again through its own', () => {
    expect(passes(`${head}string 4A\nsquare B\nsquare 2C`)).toEqual([
      ...['+0', '+1', '+2', '+3'],
      ...['+4', '3', '4', '+5', '2', '5', '+6', '1', '6', '+7', '0', '7'],
      ...['+8', '+9', '6', '7', '8', '9', '+10', '+11', '4', '5', '10', '11'],
    ])
    expect(errorsIn(lines('string 5A\nsquare 2B'))[0]?.message).toBe(
      'The row below has 5 beads and the list 2: 5 is 2 x 2 and 1 over.',
    )
    expect(errorsIn(lines('ring 6A\nsquare B'))[0]?.message).toMatch(/this is a ring/)
  })

  test('a count is shared out over a ring as evenly as whole beads allow', () => {
    const net = lines('ring 56A as base\nround 3B into 9 beads of base')
    const round = net.statements[1]?.action
    // 56 is seven times 6 and twice 7.
    expect(round?.type === 'round' && round.into).toMatchObject({ steps: [6, 6, 6, 6, 7, 6, 6, 6, 7] })
    const shares = Array.from({ length: 9 }, (_, k) => counts(evaluate(`${head}string A x share(56, 9, ${k + 1})`)).A)
    expect(shares).toEqual([6, 6, 6, 6, 7, 6, 6, 6, 7])
    expect(errorsIn(lines('string A x share(56, 9, 10)'))[0]?.message).toBe('There is no part 10 of 9.')
  })

  test('a row goes from the end at which the needle is, so that rows can all be worked the same way', () => {
    expect(passes(`${head}string 6A\nrow B as second\ngo back 5\nrow C`).slice(6)).toEqual([
      ...['+6', '4<', '+7', '2<', '+8', '0<'],
      ...['8<', '2', '7<', '4', '6<'],
      // On from the first of the second row, over what lies between.
      ...['+9', '7', '+10', '8'],
    ])
  })

  test('a letter stands for one bead after the other, place by place', () => {
    const report = lines('ring (3A B) x 4 as wall\nat each B in wall for X in A, C\nloop 2X\nend')
    expect(errorsIn(report)).toEqual([])
    expect(counts(report)).toMatchObject({ A: 12 + 4, C: 4 })
    expect(errorsIn(lines('for A in B, C\npick A\nend'))[0]?.message).toBe('A is declared already.')
    expect(errorsIn(lines('for X in B, Q\npick X\nend'))[0]?.message).toMatch(/Q/)
  })

  test('a round in a later part stands on what its line names, walked in one direction', () => {
    const strip = `${head}weave 3 units of A B A as strip\npart second\n`
    const round = passes(`${strip}round C into strip.A`).slice(-12)
    expect(round).toEqual(passes(`${strip}rail edge = strip.A\nround C`).slice(-12))
    expect(
      errorsIn(
        evaluate(`${head}ring 12A as wall\nfinish\npart b\nnew thread at wall[3]\nround B into every 2nd bead of wall`),
      ),
    ).toEqual([])
  })

  test.each([
    [11, 'C, A'],
    [12, 'A, C'],
  ])('a strip of %i units is closed without a twist: each edge goes on in its own beads', (units, order) => {
    const { work, letterOf } = evaluatePattern(
      `${head}weave ${units} units of A B C as strip\njoin to strip.first with ${order}`,
    )
    const [before, closing, after] = [4, 3, 2].map((back) => work.holeAt(work.passes - back)) as [
      number,
      number,
      number,
    ]
    const lettersAt = (end: number) => work.joinedTo(end).map((each) => letterOf(work.role(beadOf(each))))
    for (const [end, bead] of [
      [entryOf(closing), before],
      [exitOf(closing), after],
    ] as const)
      expect(new Set(lettersAt(end))).toEqual(new Set([letterOf(work.role(beadOf(bead)))]))
  })

  test('a unit that is gone round twice, a bead between strands, a standing row by the one beneath', () => {
    const once = passes(`${head}weave 1 units of 3A`)
    expect(passes(`${head}weave 1 units of 3A twice`)).toEqual([
      ...once.slice(0, 5),
      '1',
      '2',
      '3',
      '0',
      ...once.slice(5),
    ])
    expect(passes(`${head}string 2A as low\nfringe B end C between 2B into low`).slice(2)).toEqual([
      ...['+2', '+3', '2<', '+4', '+5', '0<', '+6', '+7', '6<'],
    ])
    expect(lines('stand A round 12 mm x 20\nstand row A x row + 6').statements[1]?.stitches).toBe(26)
  })
})

describe('crowding', () => {
  test('at the bench a round 11/0 took nine passes of 6 lb braid with needle 12 and not one more, a round 15/0 four', () => {
    // 0.36 - 0.1296 - 0.045 = 0.1854, / 0.0536 = 3.5; 0.64 - 0.1746 = 0.4654, / 0.0536 = 8.7
    expect(maxPassesThrough(0.6, 0.15, 0.36)).toBe(4)
    expect(maxPassesThrough(0.8, 0.15, 0.36)).toBe(9)
    expect(maxPassesThrough(0.3, 0.15, 0.36)).toBe(0)
  })

  test.each([
    [9, 2, '9 passes: room for 2 more'],
    [1, 0, '1 pass: full'],
    [13, -11, '13 passes: 11 too many'],
  ])('%d passes with %d left are told as "%s"', (passes, room, words) =>
    expect(sayCrowding({ role: 'A', line: 4, passes, room })).toBe(words),
  )

  test('the way to a bead goes round those that are full', () => {
    // Four passes through every C of the ring leave one; the walk takes it, and the next has to do without.
    const low = lines('ring 6C as low\nreinforce 3\nto low.first\nto low[3]')
    expect(low.crowding[0]).toMatchObject({ role: 'C', passes: 6 })
    const net = 'ring 8A as low\nround C\nto low[3]'
    expect(lines(net).statements[2]?.needleIn).toBe('A')
  })

  test('the line that is one pass too many is named, with the ways out', () => {
    const report = lines('ring 12C\nreinforce 2\nreinforce')
    expect(report.crowding.find(({ role }) => role === 'C')).toMatchObject({ passes: 5, room: -1, line: 9 })
    const [warning] = report.diagnostics.filter((fault) => fault.message.includes('would take'))
    expect(warning).toMatchObject({ severity: 'warning', line: 9 })
    // needle 15: 0.36 - 0.0625 - 0.045 = 0.2525, / 0.0536 = 4.7: 5 passes
    expect(warning?.mend).toMatch(/^Needle 15 lets 5 through; braid 4 lb lets \d+ through; 1 pass fewer would do/)
  })
})

describe('an odd ring', () => {
  test('comes out even with one stitch over two beads, on both edges', () => {
    const report = lines('ring 27A\nround A x12, A over 2\nround A\nother edge\nround A\nround A')
    expect(report.diagnostics.filter(({ line }) => line > 6)).toEqual([])
    expect(
      report.statements.flatMap(({ action }) => (action.type === 'round' ? [[action.stitches, action.ends]] : [])),
    ).toEqual(Array(4).fill([13, 'steps up']))
    // 27 of the ring and four rounds of 13.
    expect(counts(report).A).toBe(79)
  })
  test('round a stone that lies in another has a verdict of its own', () => {
    const source =
      'pattern P\nbead A cylinder 11/0\nstone S round 14 mm, height 5 mm\npart p\nring 36A\nround A\nplace S\nring 34A as second\nplace S in second\n'
    const { fits, diagnostics } = evaluate(source)
    expect(fits.map(({ beads, verdict }) => [beads, verdict])).toEqual([
      [36, 'snug'],
      [34, 'too tight'],
    ])
    expect(diagnostics.some(({ message }) => message.includes('placed already'))).toBe(false)
  })
  test('of a part that is made twice is no second ring', () => {
    const { work } = evaluatePattern(
      'pattern P\nbead A cylinder 11/0\nstone S round 14 mm, height 5 mm\npart p x 2\nring 36A as wall\nround A\nplace S in wall\nfinish\n',
    )
    expect([...work.cores.values()]).toEqual(['S', 'S'])
  })
  test('is said to be a bead short of even where a stone is laid in', () => {
    const source = 'pattern P\nbead A cylinder 11/0\nstone S round 14 mm, height 5 mm\npart p\nring 35A\nplace S\n'
    const [told] = evaluate(source).diagnostics.filter(({ line }) => line === 6)
    // Target 14 pi + 0.8 pi = 46.5 mm; 36 x 1.3 = 46.8 mm.
    expect(told?.message).toContain('35 is one bead short of an even number: 36 would be +0.7 %, 46.8 mm round.')
  })
})

test('small beads go over half of a large one from hole to hole', () => {
  const over = (large: string, small: string) =>
    counts(evaluate(`pattern P\nbead P ${large}\nbead Q ${small}\npart p\npick (Q) x arc(P, Q)`)).Q
  // 2 x 6 / sqrt 2 + pi x 1.6 / 2 = 11.0 mm, / 1.3 = 8.5
  expect(over('bicone 6 mm', 'cylinder 11/0')).toBe(8)
  // Half round a circle of 4 + 2.1 mm: 9.6 mm, / 1.5 = 6.4
  expect(over('pearl round 4 mm', 'round 11/0')).toBe(6)
  // Along a cube of 4 mm and down both its ends: 8 + 3.3 mm, / 1.5 = 7.5
  expect(over('cube 4 mm', 'round 11/0')).toBe(8)
})

test('a materials list is compared line by line with what the steps use', () => {
  const list =
    'Materials:\n- 63 cylinders for the frame\nB: 5\nround 15/0, 2 g\n\n12 crystals\n1 gram cylinder 11/0\nneedle size 11'
  const report = evaluate(demo('windlass-pendant'), { size: 'petite' })
  const found = reconcile(report, list)
  expect(found).toEqual([
    { type: 'agrees', line: 2, role: 'A', used: 63 },
    { type: 'short', line: 3, role: 'B', listed: 5, used: 9 },
    // 2 g / 3.6 mg = 555
    { type: 'long', line: 4, role: 'C', listed: 555, used: 81 },
    { type: 'unused', line: 6, text: '12 crystals' },
    { type: 'ambiguous', line: 7, text: '1 gram cylinder 11/0', roles: ['A', 'B'] },
    { type: 'missing', role: 'S', used: 1 },
    { type: 'missing', role: 'thread', used: report.thread.totalMm, unit: 'mm' },
  ])
})

test.each([
  ['1 m nylon thread, 0.15 mm', 'short', 1000],
  ['thread, 4 feet', 'agrees', undefined],
  ['2 yards of beading thread', 'agrees', undefined],
  ['thread to match', 'agrees', undefined],
  ['50 m thread', 'long', 50_000],
])('a line of thread, "%s", is compared by its length', (line, type, listed) => {
  const report = evaluate(demo('windlass-pendant'), { size: 'petite' })
  // A little more than a metre.
  expect(Math.round(report.thread.totalMm / 100)).toBe(11)
  const [found] = reconcile(report, line)
  expect(found).toEqual({
    type,
    line: 1,
    role: 'thread',
    used: report.thread.totalMm,
    unit: 'mm',
    ...(listed === undefined ? {} : { listed }),
  })
})

test('formatting sets margins, spaces and blank lines, and keeps comments and quotes', () => {
  const untidy =
    'pattern   A  b\n\n\nbead A   cylinder 11/0 "two  words"   # why\npart p\nring 6A ,6A\nrepeat 2\nround   A\nend\n# last'
  expect(formatPattern(untidy)).toBe(
    'pattern A b\n\nbead A cylinder 11/0 "two  words"  # why\n\npart p\n  ring 6A, 6A\n  repeat 2\n    round A\n  end\n  # last\n',
  )
})

describe('a strip with two edges', () => {
  const { work, letterOf } = evaluatePattern(
    'bead A round 11/0\nbead T round 11/0\nbead E round 11/0\npart p\nweave 4 units of T A E as s\njoin to s.first with T, E\nrail upper = T\n',
  )
  const picked = Array.from({ length: work.beads }, (_, bead) => letterOf(work.role(bead))).join('')

  test('keeps the bead named first on one edge and the bead named last on the other', () => {
    expect(picked).toBe('ATAEEATTAEEATTE')
    // Each upper bead is joined, end to end, to the uprights on either side of it, and never to a lower bead.
    const letters = new Map(Array.from({ length: work.beads }, (_, bead) => [bead, letterOf(work.role(bead))]))
    for (const [bead, letter] of letters)
      if (letter === 'T')
        for (const end of [bead * 4, bead * 4 + 1])
          expect(work.joinedTo(end).map((other) => letters.get(beadOf(other)))).not.toContain('E')
  })

  test('has rails that are walked along it, whatever way their beads were picked up', () => {
    const upper = Array.from({ length: work.beads }, (_, bead) => bead).filter(
      (bead) => letterOf(work.role(bead)) === 'T',
    )
    const walked = walkedAlong(
      upper.map((bead) => hole(bead)),
      work,
    )
    // Where the thread comes out of one it can go on, by way of an upright's end, into the next.
    for (const [i, h] of walked.slice(1).entries())
      expect(work.joinedTo(exitOf(walked[i] as number)).some((end) => work.joinedTo(entryOf(h)).includes(end))).toBe(
        true,
      )
    expect(walked.map((h) => h & 1)).toEqual([0, 1, 0, 1, 0])
  })
})

describe('slips of the pen', () => {
  test('a minus after a name takes away, in brackets too', () => {
    const report = evaluate(`${head}let n = 36\nring A x floor(n - 1)\nlet a = 90 mm\nlet r = repeats(a - 27 mm, 4 mm)`)
    expect(errorsIn(report)).toEqual([])
    expect(counts(report).A).toBe(35)
  })

  test('a fault is told once however often its line is done, and nothing is said to be unused beside it', () => {
    const report = evaluate(
      `${head}ring 12A\nfor k in 1..7\nround k C, 2C, 3C, 4C, 5C\nend\nround B into every (k)th bead`,
    )
    const told = report.diagnostics.filter(({ severity }) => severity !== 'note')
    expect(new Set(told.map(({ line }) => line)).size).toBe(told.length)
    expect(told.every(({ message }) => !message.includes('never picked up'))).toBe(true)
  })

  test('beads listed together are added up, and a round stone is a stone', () => {
    const report = evaluate(`${head}ring 36A\nround B\nplace S`)
    expect(reconcile(report, '54 A or B\n1 14 mm round stone')).toEqual([
      { type: 'agrees', line: 1, role: 'A + B', used: 54 },
      { type: 'agrees', line: 2, role: 'S', used: 1 },
      { type: 'missing', role: 'thread', used: report.thread.totalMm, unit: 'mm' },
    ])
  })

  test('a name that means something already is refused, with what it means', () => {
    expect(errorsIn(lines('ring 12A as front'))[0]?.message).toBe('"front" cannot be a name: it means the front edge.')
  })
})

test('a round in a later part goes on from the edge that the needle comes to', () => {
  const report = lines(
    'ring 12A as wall\nround A\nround A\npart edge\nto trial.front\nround C\npart behind\nto wall[1]\nround C',
  )
  expect(errorsIn(report)).toEqual([])
  expect(counts(report)).toEqual({ A: 24, C: 12 })
  expect(errorsIn(lines('ring 12A\npart edge\nround C'))[0]?.message).toMatch(/no ring in this part/)
})

test('a ring has another edge after any first round: what peyote skipped, or the ring itself', () => {
  const back = (first: string) => {
    const report = lines(`ring 24A\n${first}\nother edge\nround C`)
    expect(errorsIn(report)).toEqual([])
    return report.statements.at(-1)?.action
  }
  for (const first of [
    'round 5C into every 4th bead',
    'round 2C B',
    'round B x10, B over 2',
    'round C into every bead',
  ])
    expect(back(first)).toMatchObject({ type: 'round', edge: 'back', round: 1 })
  expect(back('round 5C into every 4th bead')).toMatchObject({ stitches: 12, fresh: true })
  expect(back('round B')).toMatchObject({ stitches: 12, fresh: false })
})

describe('places', () => {
  const from = (text: string) => passes(`${head}${text}`).map((pass) => pass.replace('<', ''))
  test('are counted back from the end, taken as a stretch or a half, and come round in a ring', () => {
    expect(from('string 6A as edge\nthrough edge[-2], edge[2..4], edge[4..2]').slice(6)).toEqual([
      ...['4', '1', '2', '3', '3', '2', '1'],
    ])
    expect(from('ring 6A as wall\nthrough wall[8], wall[6..2]').slice(12)).toEqual(['1', '5', '0', '1'])
    expect(from('string 5A as edge\nthrough second half of edge').slice(5)).toEqual(['3', '4'])
    expect(from('string 5A as edge\nthrough first half of edge').slice(5)).toEqual(['0', '1', '2'])
  })
  test('gather under one name, and a name goes back as often as it was given', () => {
    const text =
      'ring 12A as base\nrepeat 3\nthrough base next 4\nloop 2C as tip2, all\nend\nrail edge = tip2, base[1]\nround B'
    expect(counts(lines(text))).toEqual({ A: 12, C: 6, B: 7 })
    expect(from('ring 6A as a\nring 7A as a\nring 8A as a\nthrough a.prev.prev[1]').at(-1)).toBe('0')
    expect(errorsIn(lines('ring 6A as a\nto a.prev.prev[1]'))[0]?.message).toBe(
      'There is no "a" 2 before the last one.',
    )
  })
  test('of one letter in an edge lie in the order of the edge, from the needle on', () => {
    const text = 'ring (A C) x 4 as wall\nto wall[5]\nat each A in wall\nloop B\nend'
    const loops = from(text).flatMap((pass, i, all) => (pass.startsWith('+') && i > 8 ? [all[i + 1]] : []))
    expect(loops).toEqual(['0', '2', '4', '6'])
  })
})
