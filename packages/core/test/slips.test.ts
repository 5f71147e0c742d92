/** What people type: each slip is one error, at its place, with a fix that is true. */
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { counts, errorsIn, evaluate } from './support'

const beads = `pattern Trial
bead A cylinder 11/0
bead B cylinder 11/0
bead C round 15/0
bead E round 15/0
stone S round 12 mm
stone R round 12 mm
`
const inPart = (lines: string) => `${beads}part trial\n${lines}\n`
const errorOf = (source: string) => {
  const errors = errorsIn(evaluate(source))
  expect(errors).toHaveLength(1)
  return errors[0] as (typeof errors)[number]
}

test.each([
  ['Ring 24A', 1, 'ring 24A'],
  ['ring 24A; round B', 9, 'ring 24A\n round B'],
  ['ring 12A\nround A – B', 9, 'ring 12A\nround A - B'],
])('%j is told at its place, and its fix is a pattern that works', (lines, column, fixed) => {
  const source = inPart(lines)
  const { edit, column: at } = errorOf(source)
  if (!edit) throw new Error('There is no fix.')
  expect(at).toBe(column)
  const mended = source.slice(0, edit.from) + edit.insert + source.slice(edit.to)
  expect(mended).toBe(inPart(fixed))
})

test.each([
  ['ring A*12', 9, 7],
  ['ring 12Ä', 9, 8],
  ['ring 1A', 9, 6],
  ['ring 0A', 9, 6],
  ['until length 100\n  pick 3A\nend', 9, 14],
  ['until length 100 mm\n  note "x"\nend', 9, 1],
  ['repeat 3\n  pick 3A', 9, 1],
  ['weave 5 units of (C A C) B B', 9, 18],
])('%j is one error at %i:%i', (lines, line, column) => {
  expect(errorOf(inPart(lines))).toMatchObject({ line, column })
})

test('a fraction slash in a declaration is told once, and what needs that bead is only noted', () => {
  const source = 'pattern T\nbead A cylinder 11\u20440\npart t\n  ring 12A\n  round A\n  round A\n'
  expect(errorOf(source)).toMatchObject({ line: 2, edit: { insert: '/' } })
})

test('a stone that is meant is named, and one of the size of a house is refused', () => {
  const one = 'pattern T\nbead A cylinder 11/0\nstone S round 14 mm\npart t\n  ring 36A\n  round A\n  place T\n'
  expect(errorOf(one).edit?.insert).toBe('S')
  expect(errorOf(one.replace('14 mm', '300 cm').replace('place T', 'place S'))).toMatchObject({ line: 3 })
})

test.each([
  ['cabochon 14 mm', 'round 14 mm, domed'],
  ['cabochon oval 10 x 14 mm, height 4 mm', 'oval 10 x 14 mm, height 4 mm, domed'],
  ['faceted round 14 mm', 'round 14 mm, pointed back'],
  ['oval 10 x 14 mm, cabochon', 'oval 10 x 14 mm, domed'],
])('"%s" is the stone that a shop calls so', (called, told) => {
  const stone = (words: string) => {
    const { report } = evaluatePattern(inPart('ring 12A').replace('round 12 mm', words))
    expect(errorsIn(report)).toEqual([])
    return report.stones.find(({ role }) => role === 'S')?.stone
  }
  expect(stone(called)).toEqual(stone(told))
})

test('running text and an empty file are one error each', () => {
  const letter =
    'Dear reader, this is a bracelet.\nYou start with twelve beads.\nThen you close the ring and go on.\nUse a good thread.\n'
  expect(errorOf(letter)).toMatchObject({ line: 1, column: 1 })
  for (const empty of ['', '\n\n', '# nothing yet\n']) expect(errorOf(empty)).toMatchObject({ line: 1 })
})

test('a thread and its tail may be told in metres', () => {
  const { report } = evaluatePattern(
    inPart('ring 12A').replace('stone S', 'thread braid 6 lb, single, needle 12, tail 1 m\nstone S'),
  )
  expect(errorsIn(report)).toEqual([])
  expect(report.threadSettings.tailMm).toBe(1000)
})

describe('nothing vanishes without a word', () => {
  const using = (a: string, b: string) =>
    `pattern T\nbead A cylinder 11/0\npart one\n  ring 12A\n  ${a}\npart two\n  ring 14A\n  ${b}\npart three\n  ring 16A\n`

  test('parts that use each other, or themselves, are an error at their line', () => {
    expect(errorOf(using('use two', 'use one'))).toMatchObject({ line: 3 })
    expect(errorOf(using('round A', 'use two'))).toMatchObject({ line: 6 })
    expect(errorsIn(evaluate(using('use two', 'round A')))).toEqual([])
  })

  test('a second stone has no room in a ring that holds one, and has in a ring of its own', () => {
    const held = 'ring 32A\n  round B\n  place S\n'
    expect(errorOf(inPart(`${held}  place R`))).toMatchObject({ line: 12, column: 9 })
    const apart = `${beads}part one\n  ${held}part two\n  ring 32A\n  round B\n  place R\n`
    expect(errorsIn(evaluate(apart))).toEqual([])
  })

  test.each([2, 3])(
    'what two-drop of %i skips stands up on the other edge, wherever the needle comes to it',
    (drop) => {
      const lines = (walk: string) =>
        inPart(`ring (${drop}A B) x 18 as base\n  round ${drop}A into B\n  ${walk}other edge\n  round E`)
      for (const walk of ['', 'round C\n  ', 'round C\n  round C\n  ']) {
        const report = evaluate(lines(walk))
        expect(errorsIn(report)).toEqual([])
        expect(counts(report).E).toBe(18)
      }
    },
  )
})

test('a ring that is only knotted lets the needle on into its first bead', () => {
  const lines = inPart('ring 12A as base\n  to base.first\n  through base[2]')
  const { report, work } = evaluatePattern(lines.replace('part trial', 'part trial, close knot'))
  expect(errorsIn(report)).toEqual([])
  expect(work.passes).toBe(14)
})

test('a note and a check may say what a let or the size has worked out', () => {
  const { statements } = evaluate(inPart('let n = 6\n  let l = 4 cm\n  ring n A\n  check "{n} pairs, {l}, {count A}"'))
  expect(statements.at(-1)?.action).toMatchObject({ text: '6 pairs, 40 mm, 6' })
  expect(errorOf(inPart('ring 12A\n  note "{m} pairs"'))).toMatchObject({ line: 10 })
})
