/** What a hand stitches, said as lines: never anything that was not done, and in no more words than a designer would take. */
import { readdirSync } from 'node:fs'
import path from 'node:path'
import fc from 'fast-check'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { beginning } from '../src/hand/begin'
import { brushed } from '../src/hand/brush'
import { asPart, marked, movedUp, onOtherEdge, repeated, takenOut } from '../src/hand/edit-text'
import { type HandPass, passesOf, samePass } from '../src/hand/hand-pass'
import { mirrored } from '../src/hand/mirror'
import { paint } from '../src/hand/paint'
import { recognise } from '../src/hand/recognise'
import { rolledOut } from '../src/hand/rolled-out'
import { shortRun, shortStitches } from '../src/hand/shorten'
import { SoFar } from '../src/hand/so-far'
import { spell } from '../src/hand/spell'
import { Stitching } from '../src/hand/stitching'
import { tokensIn } from '../src/hand/tokens'
import type { Line } from '../src/notation/line'
import { parsePattern } from '../src/notation/parse'
import { isBlockWord } from '../src/notation/words'
import { randomPattern } from './follower/random-patterns'
import { allDemos, demo, errorsIn, evaluate, head, passes, testPiece } from './support'

interface Worked {
  readonly line: Line
  /** Passes before it. */
  readonly from: number
  readonly hand: readonly HandPass[]
}

/** The lines of a text that are worked once and lay thread, with what they lay. */
function worked(source: string): Worked[] {
  const { report, work, letterOf } = evaluatePattern(source)
  const lines = new Map(parsePattern(source).lines.map((line) => [line.number, line]))
  const inBlock = new Set<number>()
  let depth = 0
  for (const { number, keyword } of lines.values()) {
    if (keyword === 'end') depth--
    if (depth > 0) inBlock.add(number)
    if (isBlockWord(keyword)) depth++
  }
  return report.statements.flatMap(({ line: number, times, action }, statement) => {
    const line = lines.get(number)
    if (times !== 1 || !line || inBlock.has(number) || action.type === 'repeat' || action.type === 'new thread')
      return []
    const own = Array.from({ length: work.passes }, (_, pass) => pass).filter(
      (pass) => work.statementAt(pass) === statement,
    )
    const [from, to] = [own[0], (own.at(-1) ?? 0) + 1]
    if (from === undefined || to - from !== own.length) return []
    return [{ line, from, hand: passesOf(work, from, to, letterOf) }]
  })
}

const pieces = readdirSync(path.join(__dirname, 'pieces')).map((file) => testPiece(file.replace('.tess', '')))
const written = [...allDemos.map(demo), ...pieces]
const random = fc.sample(randomPattern, { numRuns: 80, seed: 2026 })

/** The text up to a line, with other lines in its place, and the parts that random patterns use. */
const upTo = (source: string, { from }: Line, lines: readonly string[]) => {
  const used = source.search(/^part (motif|twice)\b/m)
  return `${source.slice(0, from)}${lines.join('\n')}\n${used < 0 ? '' : source.slice(used)}`
}

describe.each([
  ['of patterns that were written', written],
  ['of random patterns', random],
])('the lines %s', (_, sources) => {
  const found = sources.flatMap((source) =>
    worked(source).flatMap(({ line, from, hand }) => {
      const soFar = SoFar.of(source, {}, line.number - 1)
      return soFar instanceof SoFar ? [{ source, line, from, hand, soFar }] : []
    }),
  )

  test('are recognised in no more words than they were written in, and never as something else', () => {
    let short = 0
    for (const { source, line, from, hand, soFar } of found) {
      const steppedAlike = from === soFar.machine.work.passes
      const all = recognise(soFar, hand).filter(({ done, restepped }) => done && restepped !== steppedAlike)
      const [best] = all
      if (best && best.tokens <= tokensIn(line)) short++
      if (!best || !steppedAlike) continue
      const told = passes(upTo(source, line, [best.line])).slice(from, from + hand.length)
      expect([line.text, best.line, told]).toEqual([
        line.text,
        best.line,
        passes(source).slice(from, from + hand.length),
      ])
    }
    expect(found.length).toBeGreaterThan(250)
    expect(short / found.length).toBeGreaterThan(0.95)
  })

  test('can always be said pass by pass', () => {
    for (const { source, line, from, hand, soFar } of found) {
      if (from !== soFar.machine.work.passes) continue
      const lines = spell(soFar, hand)?.map((each) => each.line)
      expect([line.text, lines]).toEqual([line.text, expect.anything()])
      expect(passes(upTo(source, line, lines ?? [])).slice(from, from + hand.length)).toEqual(
        passes(source).slice(from, from + hand.length),
      )
    }
  })
})

test('after the first two stitches the round is among what is proposed', () => {
  let rounds = 0
  let proposed = 0
  for (const source of written)
    for (const { line, hand } of worked(source)) {
      if (line.keyword !== 'round' && line.keyword !== 'row') continue
      const soFar = SoFar.of(source, {}, line.number - 1)
      if (!(soFar instanceof SoFar)) continue
      rounds++
      const second = hand.findIndex((pass, i) => i > 0 && pass.type === 'pass' && hand[i + 1]?.type === 'pick')
      const third = hand.findIndex((pass, i) => i > second && pass.type === 'pass' && hand[i + 1]?.type === 'pick')
      const made = hand.slice(0, (third < 0 ? hand.length : third) + 1)
      const places = recognise(soFar, made).slice(0, 5)
      if (places.some((each) => hand.every((pass, i) => samePass(pass, each.passes[i]) || i >= each.passes.length - 3)))
        proposed++
    }
  expect(rounds).toBeGreaterThan(60)
  expect(proposed / rounds).toBeGreaterThan(0.85)
})

describe('what is proposed', () => {
  const begun = `${head}`
  const state = (text: string, made: readonly HandPass[]) => {
    const stitching = Stitching.begin(text, {})
    if (!(stitching instanceof Stitching)) throw new Error(stitching.why)
    return stitching.state(made)
  }
  const picks = (letters: string): HandPass[] => [...letters].map((role) => ({ type: 'pick', role, bore: 0 }))
  const pass = (bead: number, back = false): HandPass => ({ type: 'pass', hole: bead * 4 + (back ? 1 : 0) })
  const lines = (text: string, made: readonly HandPass[]) =>
    state(text, made).proposals.map((each) => each.lines.join('; '))

  test('the first beads become a ring that fits the stone, or a ring of their own', () => {
    expect(lines(begun, picks('A'))).toContain('ring A x fit(S, A)')
    expect(lines(begun, picks('AAAB'))).toContain('ring (3A B) x fit(S, A, multiple 4) / 4')
    expect(state(begun, picks('AAAA')).lines).toEqual(['pick 4A'])
    expect(state(begun, [...picks('AAAAAA'), pass(0)]).proposals[0]?.lines).toEqual(['ring 6A'])
  })
  test('netting: one arc is enough', () => {
    const ring = `${begun}  ring 24A\n`
    expect(lines(ring, [...picks('CCC'), pass(3)])).toContain('round 3C into every 4th bead')
  })
  test('a decrease is done again where the round comes out even', () => {
    const ring = `${begun}  ring 24A\n  round A\n`
    const made = [...picks('A'), pass(25), ...picks('A'), pass(26), pass(27)]
    expect(lines(ring, made)).toContain('round A x 2, -')
  })
  test('a loop back through the bead that the needle came from', () => {
    expect(lines(`${begun}  ring 24A\n`, picks('CCCCC'))).toContain('loop 5C')
  })
  test('with nothing in hand: the same again, one bead longer, the other edge, the stone', () => {
    expect(lines(`${begun}  ring 24A\n  loop 3C\n  loop 4C\n`, [])).toEqual(
      expect.arrayContaining(['loop 4C', 'loop 5C', 'place S']),
    )
    expect(lines(`${begun}  ring 24A\n  round A\n`, [])).toEqual(expect.arrayContaining(['round A', 'other edge']))
    expect(lines(`${begun}  ring 24A\n`, [])[0]).toBe('round A')
  })
  test('the same at each bead like it', () => {
    const ring = `${begun}  ring (3A B) x 6 as base\n  to base[4]\n  loop 3C\n`
    const [found] = state(ring, []).proposals.filter((each) => each.lines[0]?.startsWith('at each'))
    expect(found?.lines).toEqual(['at each B in base', 'loop 3C', 'end'])
    expect(errorsIn(evaluate(found?.text ?? ''))).toEqual([])
    expect(evaluate(found?.text ?? '').beads.find(({ role }) => role === 'C')?.each).toBe(18)
  })
  test('a hole that is full is told before anybody passes it', () => {
    const text = `${begun}  ring 24A as base\n  reinforce 9\n`
    const { full } = state(text, [])
    expect(full['0:0']).toMatchObject({ letter: 'A' })
    expect(full['0:0']?.passes).toBeGreaterThanOrEqual(full['0:0']?.most ?? Number.POSITIVE_INFINITY)
  })
  test('beads that are drawn of another text are not taken for its own; a stitch that only steps up otherwise changes none', () => {
    const holesOf = (text: string) => {
      const { work } = evaluatePattern(text)
      return Int32Array.from({ length: work.passes }, (_, pass) => work.holeAt(pass))
    }
    const ring = `${begun}  ring 24A\n`
    const on = (text: string, drawn: string) => (Stitching.begin(text, {}) as Stitching).state([], holesOf(drawn))
    expect(on(`${ring}  round A\n`, ring)).toMatchObject({ drawnOtherwise: false })
    expect(on(`${ring}  round A\n`, ring).undrawn).toHaveLength(25)
    expect(on(`${begun}  ring 20A\n`, ring)).toMatchObject({ drawnOtherwise: true })
    expect(on(ring, `${ring}  round A\n`)).toMatchObject({ drawnOtherwise: true })
    const net = `${ring}  round 3C into every 4th bead\n`
    expect(on(`${net}  round 3C into middles\n`, net)).toMatchObject({ drawnOtherwise: false })
  })
  test('where nothing can be stitched, it says why', () => {
    expect(Stitching.begin(`${begun}  ring 24A\n  finish\n`, {})).toEqual({
      why: expect.stringContaining('finished'),
      mend: 'new thread',
    })
    expect(Stitching.begin(`${begun}  ring 24A\n  finish\n  new thread\n`, {})).toBeInstanceOf(Stitching)
    expect(Stitching.begin(`${begun}  ring 24Q\n`, {})).toEqual({ why: expect.stringContaining('Line 7') })
  })
})

describe('lists at their shortest', () => {
  const letters = fc.array(fc.constantFrom('A', 'B', 'C'), { minLength: 1, maxLength: 24 })
  const repeatedly = fc.tuple(letters, fc.integer({ min: 1, max: 5 })).map(([unit, n]) => Array(n).fill(unit).flat())
  const some = fc.oneof(letters, repeatedly) as fc.Arbitrary<string[]>
  const ringOf = (list: string) => {
    const { work, letterOf } = evaluatePattern(`${head}  string ${list}\n`)
    return Array.from({ length: work.beads }, (_, bead) => letterOf(work.role(bead)))
  }
  const tokens = (list: string) => tokensIn(parsePattern(`string ${list}`).lines[0] as Line)

  test('are the same beads, and no longer than their runs', () => {
    fc.assert(
      fc.property(some, (beads) => {
        const short = shortRun(beads)
        expect(ringOf(short)).toEqual(beads)
        const runs = beads.join('').match(/(.)\1*/g) ?? []
        const plain = runs.map((run) => (run.length > 1 ? `${run.length}${run[0]}` : run)).join(' ')
        expect(tokens(short)).toBeLessThanOrEqual(tokens(plain))
      }),
      { numRuns: 300 },
    )
  })
  test('of stitches too', () => {
    expect(shortStitches(['A', 'A', '-', 'A', 'A', '-'])).toBe('(A x 2, -) x 2')
    expect(shortStitches(['2A B', 'C'])).toBe('2A B, C')
    expect(shortRun([...'AAABAAABAAAB'])).toBe('(3A B) x 3')
    expect(shortRun([...'CAABAABAABAABC'])).toBe('C (2A B) x 4 C')
  })
})

describe('painting', () => {
  const painted = (source: string, at: ReadonlyMap<number, string>) => {
    const found = paint(source, {}, at)
    if ('why' in found) throw new Error(found.why)
    return found.text.slice(head.length).trim()
  }

  test('a ring that follows its stone still follows it', () => {
    const source = `${head}  let n = fit(S, A, multiple 4)  # as it fits\n  ring A x n\n`
    const { work } = evaluatePattern(source)
    const every = brushed(work, 3, { type: 'every', n: 4, mirrored: false })
    expect(painted(source, new Map(every.map((bead) => [bead, 'B'])))).toBe(
      'let n = fit(S, A, multiple 4)  # as it fits\n  ring (3A B) x n/4',
    )
  })
  test('a round takes the shortest list that says it', () => {
    const source = `${head}  ring 24A as base\n  round A as rim  # first\n`
    expect(painted(source, new Map([[24, 'B']]))).toBe('ring 24A as base\n  round B, A x 11 as rim  # first')
    const { work } = evaluatePattern(source)
    const every = brushed(work, 24, { type: 'every', n: 3, mirrored: false })
    expect(painted(source, new Map(every.map((bead) => [bead, 'C'])))).toBe(
      'ring 24A as base\n  round C, A x 2 as rim  # first',
    )
  })
  test('one turn of a repeat is written out, the others stay a repeat', () => {
    const source = `${head}  ring 12A\n  repeat 6\n    round A\n  end\n`
    expect(painted(source, new Map([[24, 'B']]))).toBe(
      'ring 12A\n  repeat 2\n    round A\n  end\n  round B, A x 5\n  repeat 3\n    round A\n  end',
    )
  })
  test('what goes by the letters of beads is not painted behind its back', () => {
    const source = `${head}  ring (3A B) x 6\n  to any B\n  loop 3C\n`
    expect(paint(source, {}, new Map([[23, 'A']]))).toEqual({ why: expect.any(String) })
  })
  test('a motif is mirrored bead for bead', () => {
    const source = `${head}  ring 24A as base\n  round B x 2, A x 10 as rim  # left\n`
    expect(mirrored(source, {}, 8, 8)).toEqual({
      text: source.replace('B x 2, A x 10', 'A x 10, B x 2'),
      beads: 4,
    })
  })
  test('of written patterns: these beads have these letters then, and nothing else has changed', () => {
    const beadOf = fc.integer({ min: 0, max: 100_000 })
    let done = 0
    for (const source of written.filter((each) => evaluatePattern(each).work.beads < 900))
      for (const [at, letter] of fc.sample(fc.tuple(beadOf, fc.integer({ min: 0, max: 5 })), { numRuns: 3, seed: 5 })) {
        const before = evaluatePattern(source)
        const letters = before.report.beads.map(({ role }) => role)
        const to = letters[letter % letters.length] as string
        const bead = at % before.work.beads
        const found = paint(source, {}, new Map([[bead, to]]))
        if ('why' in found) continue
        done++
        const after = evaluatePattern(found.text)
        const all = (of: typeof before) =>
          Array.from({ length: of.work.beads }, (_, i) => (i === bead ? to : of.letterOf(of.work.role(i))))
        expect(all(after)).toEqual(all(before))
        expect(passes(found.text)).toEqual(passes(source))
        expect(found.text.match(/#.*/g)).toEqual(source.match(/#.*/g))
      }
    expect(done).toBeGreaterThan(40)
  })
  test('a tube is rolled out round by round, each half a bead from the last', () => {
    const flat = rolledOut(evaluatePattern(`${head}  ring 12A\n  round B\n  round C\n`))
    expect(flat).toMatchObject({ rows: 4, widest: 6 })
    const row = (n: number) => flat?.beads.filter((each) => each.row === n).map(({ x }) => x * 12) ?? []
    expect(row(2).map((x) => Math.round(x * 2) % 4)).toEqual(row(0).map((x) => Math.round(x * 2) % 4))
    expect(row(2).map((x) => Math.round(x * 2) % 4)).not.toEqual(row(3).map((x) => Math.round(x * 2) % 4))
  })
})

describe('taking apart', () => {
  const text = 'part a\n  ring 12A  # base\n  round A\n  repeat 2\n    round B\n  end\n  round C\n'

  test('lines are taken out, moved, repeated, done on the other edge, named, made a part; comments stay', () => {
    expect(takenOut(text, 3)).toBe('part a\n  ring 12A  # base\n  repeat 2\n    round B\n  end\n  round C\n')
    expect(takenOut(text, 5)).toBe('part a\n  ring 12A  # base\n  round A\n  repeat 2\n  end\n  round C\n')
    expect(takenOut(text, 4)).toBe('part a\n  ring 12A  # base\n  round A\n  round C\n')
    expect(movedUp(text, 3)).toBe('part a\n  round A\n  ring 12A  # base\n  repeat 2\n    round B\n  end\n  round C\n')
    expect(movedUp(text, 7)).toBe('part a\n  ring 12A  # base\n  round A\n  round C\n  repeat 2\n    round B\n  end\n')
    expect(movedUp(text, 2)).toBe(text)
    expect(repeated(text, 3, 3)).toBe(text.replace('  round A\n', '  repeat 3\n    round A\n  end\n'))
    expect(onOtherEdge(text, 7)).toBe(`${text}  other edge\n  round C\n`)
    expect(marked(text, 'rim', 7)).toBe(text.replace('round C', 'round C as rim'))
    expect(asPart(text, 'hem', 3, 6)).toBe(
      'part a\n  ring 12A  # base\n  use hem\n  round C\n\npart hem\n  round A\n  repeat 2\n    round B\n  end\n',
    )
  })
})

test.each([
  [{ what: 'stone', stone: 'oval 13 x 18 mm, height 5 mm, domed' }],
  [{ what: 'ring', aroundMm: 60 }],
  [{ what: 'band', wide: 8 }],
  [{ what: 'rope', core: 6 }],
  [{ what: 'flower', petals: 6 }],
  [{ what: 'chain' }],
  [{ what: 'earring' }],
] as const)('a pattern begun as %j can be stitched on', (begin) => {
  const text = beginning('Trial', begin)
  expect(errorsIn(evaluate(text))).toEqual([])
  const stitching = Stitching.begin(text, {})
  expect(stitching).toBeInstanceOf(Stitching)
  expect((stitching as Stitching).state([]).needle).toBeDefined()
})
