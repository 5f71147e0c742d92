import { readFileSync } from 'node:fs'
import path from 'node:path'
import fc from 'fast-check'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { maxBeads } from '../src/notation/bead-list'
import { formatPattern } from '../src/notation/format'
import { parsePattern } from '../src/notation/parse'
import { titleOf } from '../src/notation/title'
import { statementWords } from '../src/notation/words'
import { counts, demo, demoNames, errorsIn, evaluate, head } from './support'

/** The faults of a text below the usual head, with lines counted from the first line under it. */
const faults = (text: string) =>
  evaluate(head + text)
    .diagnostics.filter((fault) => fault.severity !== 'note')
    .map((fault) => ({ ...fault, line: fault.line - 6 }))

describe('what is wrong is said where it is, and how to mend it', () => {
  test.each<[string, number, number, RegExp, RegExp]>([
    ['rnig 36A', 1, 1, /not a word/, /ring/],
    ['ring 36Q', 1, 6, /no bead Q/, /Beads here: A, B, C/],
    ['ring 36S', 1, 6, /S is a stone/, /place S/],
    ['ring 2A', 1, 6, /does not close/, /3 beads or more/],
    ['ring A x 7/2', 1, 10, /3.5, which is not a whole/, /6 or 8/],
    ['ring (3A B x 9', 1, 6, /never closed/, /\)/],
    ['ring 3A B) x 9', 1, 10, /closes nothing/, /Take it away/],
    ['ring 36A,', 1, 9, /after a comma/, /comma/],
    ['ring 9A, -', 1, 10, /only a round/, /away/],
    ['ring', 1, 4, /needs a list/, /ring 3A B/],
    ['ring A x m', 1, 10, /"m" has no value/, /let m/],
    ['let n = 3 +', 1, 11, /number/, /14 mm/],
    ['let n = 4 / 0', 1, 13, /divided by 0/, /another/],
    ['let n = fti(S, A)', 1, 9, /cannot|computed/, /fit/],
    ['let n = fit(A, S)', 1, 13, /A is not a stone/, /stone A/],
    ['let n = 12 mm + 3', 1, 9, /added/, /unit/],
    ['round A', 1, 1, /nothing on the needle/, /ring/],
    ['ring 7A\nround 2B', 2, 7, /7 beads.*an even number/, /4 \(-3.9 mm\) or 8 \(\+1.3 mm\) would do/],
    ['let n = fit(S, A)\nring A x n - 1\nround B', 3, 7, /an even number/, /would do; or take one stitch over two/],
    [
      'ring 36A\nround A x4, B x3',
      2,
      7,
      /18 stitches.*list has 7.*2 x 7 and 4 over/,
      /1, 2, 3, 6 or 9 .*ring of 28 or 42/,
    ],
    ['ring 36A\nother edge', 2, 1, /no other edge/, /round A/],
    ['ring 36A\nother side', 2, 7, /"edge"/, /other edge/],
    ['ring 36A\nplace T', 2, 7, /no stone T/, /mean S/],
    ['ring 36A\nplace A', 2, 7, /A is a bead/, /stone/],
    ['ring 36A\nto any B', 2, 8, /No B has been picked up/, /below/],
    ['ring 36A\nto bial', 2, 4, /Nothing is marked/, /front/],
    ['ring 36A\nreinforce 0', 2, 11, /at least 1/, /1 or more/],
    ['ring 36A\nfinish\nround A', 3, 1, /finished off/, /new part/],
    ['check "half', 1, 7, /never closed/, /"/],
    ['check "{sum A}"', 1, 7, /cannot be filled in/, /\{count A\}/],
    ['3A B', 1, 1, /begins with a word/, /ring/],
    ['ring 36A 🙂', 1, 10, /not expected/, /away/],
    ['stone T square 10 mm, r = 6 mm', 1, 27, /does not fit/, /At most 5/],
    ['stone T round 0 mm', 1, 15, /above 0/, /mm/],
    ['stone T oval 13 mm', 1, 9, /width and a length/, /13 x 18/],
    ['bead D cylindr 11/0', 1, 8, /not a kind/, /cylinder/],
    ['bead D cylinder 12/0', 1, 17, /no cylinder in size 12\/0/, /15\/0, 11\/0/],
    ['bead d cylinder 11/0', 1, 6, /upper case/, /bead/],
    ['bead A round 11/0', 1, 1, /declared already/, /letter of its own/],
    ['thread braid 7 lb', 1, 14, /no braid in size 7 lb/, /6 lb/],
    ['makes 0', 1, 7, /cannot make 0/, /1 to 1000/],
    ['thread braid 6 lb, length 20 cm\nring 36A', 1, 1, /20 cm of thread are less than the/, /at least/],
    ['string 36A\nthrough new[37]', 2, 12, /36 beads there; it has no number 37/, /1 to 36/],
    ['ring 36A as w\nrail inner = w:2', 2, 16, /A has one bore only/, /two-hole/],
    ['ring A:2 x 6', 1, 6, /by their first hole/, /Use pick/],
    [`ring ${'('.repeat(40)}A${')'.repeat(40)}`, 1, 37, /nested more than 32/, /lines of their own/],
  ])('%s', (text, line, column, message, mend) => {
    const [fault] = faults(text).filter((each) => each.severity === 'error')
    expect(fault).toMatchObject({
      line,
      column,
      message: expect.stringMatching(message),
      mend: expect.stringMatching(mend),
    })
  })

  test('a bead that is declared and never used is a warning at its line', () => {
    const unused = faults('ring 36A\nround B').filter((fault) => fault.severity === 'warning')
    expect(unused.map(({ line, message }) => [line + 6, message])).toEqual([
      [4, 'C is declared but never picked up.'],
      [5, 'S is declared but never placed.'],
    ])
  })

  test('a needle that no bead lets through is an error from the start', () => {
    const report = evaluate('pattern P\nbead C round 15/0\nthread braid 6 lb, needle 10\npart p\nring 12C')
    expect(errorsIn(report)).toEqual([])
    const fine = {
      kind: 'round',
      size: '15/0',
      lengthMm: 1,
      acrossMm: 1.5,
      boreMm: 0.4,
      massMg: 3.6,
      contact: 2.5,
      bores: 1 as const,
    }
    const tight = evaluate('pattern P\nbead C round 15/0\nthread braid 6 lb, needle 10\npart p\nring 12C', {
      beads: { C: fine },
    })
    expect(errorsIn(tight)).toMatchObject([{ line: 2, message: expect.stringContaining('does not go through C') }])
  })

  test('more beads than a pattern may have are refused with their number, at once', () => {
    const [fault] = errorsIn(evaluate(`${head}ring A x 999999999`))
    expect(fault?.message).toContain('999,999,999')
    expect(errorsIn(evaluate(`${head}ring A x ${maxBeads}\nround B`))[0]?.message).toContain('300,000 beads here')
  })

  test('a mend that is an edit makes the line right', () => {
    const source = `${head}rnig 36A\nround B`
    const { edit } = errorsIn(evaluate(source))[0] ?? {}
    const mended = source.slice(0, edit?.from) + edit?.insert + source.slice(edit?.to)
    expect(counts(evaluate(mended))).toEqual({ A: 36, B: 18 })
  })

  test('a size that the text does not know is said, and the usual one is evaluated', () => {
    const report = evaluate(demo('windlass-pendant'), { size: 'vast' })
    expect(errorsIn(report)[0]?.mend).toBe('Sizes: petite, classic.')
    expect(report.size).toBe('classic')
  })
})

describe('one slip never hides the counts of the rest', () => {
  const slips = [
    'rnig 36A',
    'check "open',
    'round (A',
    'round A)',
    'let = 4',
    '] [',
    'to any Q',
    'bead',
    'size',
    '🙂🙂',
  ]

  test.each(slips)('with the line "%s" put in anywhere, every other line counts as before', (slip) => {
    const lines = demo('windlass-pendant').split('\n')
    const whole = evaluate(lines.join('\n'))
    for (let at = 1; at < lines.length; at++) {
      const report = evaluate([...lines.slice(0, at), slip, ...lines.slice(at)].join('\n'))
      expect(counts(report)).toEqual(counts(whole))
      expect(errorsIn(report).map((fault) => fault.line)).toEqual([at + 1])
    }
  })

  test('lines that hang on a faulty one are left unevaluated, which is said once, with the line at fault', () => {
    const report = evaluate(`${head}ring 36Q\nround A\nround B`)
    expect(errorsIn(report)).toHaveLength(1)
    const notes = report.diagnostics.filter((fault) => fault.severity === 'note')
    expect(notes).toEqual([
      expect.objectContaining({ line: 8, message: expect.stringMatching(/line 7 .* 2 lines.*line 9/) }),
    ])
  })

  test.each([
    ['stone P rund 10 mm, height 10 mm, bead'],
    ['stone P round 10 mm, height 10 mm, bead 12'],
    ['ston P round 10 mm, height 10 mm, bead'],
  ])(
    'with a slip in the line of its stone ("%s") a piece has one fault, and no bead is said not to be picked up',
    (slip) => {
      const whole = demo('bullseye-pendant')
      const report = evaluate(whole.replace(/^stone P.*$/m, slip))
      const at = whole.split('\n').findIndex((line) => line.startsWith('stone P')) + 1
      expect(errorsIn(report).map(({ line }) => line)).toEqual([at])
      const others = report.diagnostics.filter(({ severity }) => severity !== 'error')
      expect(others).toEqual([
        expect.objectContaining({ severity: 'note', message: expect.stringContaining(`line ${at} `) }),
      ])
    },
  )

  test('a line found at fault half-way leaves nothing behind: no bead, no thread', () => {
    const whole = evaluate(`${head}ring 6A as low\nround C\nto low.first`)
    for (const slip of ['pick 3B >nowhere', 'round 2B >nowhere', 'fringe 2B end 2Q', 'through low.first, nowhere']) {
      const report = evaluate(`${head}ring 6A as low\n${slip}\nround C\nto low.first`)
      expect(errorsIn(report).map(({ line }) => line)).toEqual([8])
      expect(counts(report)).toEqual(counts(whole))
      expect(report.thread).toEqual(whole.thread)
      expect(report.crowding.map(({ role, passes }) => [role, passes])).toEqual(
        whole.crowding.map(({ role, passes }) => [role, passes]),
      )
    }
  })

  test('a list runs on after a comma, but not into the next statement', () => {
    expect(counts(evaluate(`${head}ring 12A,\n  12B\nround C`))).toEqual({ A: 12, B: 12, C: 12 })
    const report = evaluate(`${head}ring 24A\nround B,\nround C`)
    expect(errorsIn(report).map((fault) => fault.line)).toEqual([8])
    expect(counts(report)).toEqual({ A: 24, C: 12 })
  })
})

describe('lists', () => {
  test.each([
    ['ring 3A B, 2C', 6],
    ['ring (3A B) x 9', 36],
    ['ring 2(A B) C', 5],
    ['ring 3A B x 4', 16],
    ['ring A (B C) x 3', 7],
    ['ring ((A B) x 2, C) x 3', 15],
  ])('%s is %i beads', (text, beads) => {
    expect(evaluate(head + text).beads.reduce((sum, bead) => sum + bead.each, 0)).toBe(beads)
  })

  test('x repeats a stitch, and a bracket of stitches', () => {
    expect(counts(evaluate(`${head}ring 36A\nround (B x2, C) x 6`))).toEqual({ A: 36, B: 12, C: 6 })
  })
})

describe('nothing that is typed can break it', () => {
  const token = fc.constantFrom(
    ...statementWords,
    ...'any as edge each in into every middles of with over back end for keep new front x'.split(' '),
    ...'A B C S Q 3 36 0 -1 1e9 999999999 11/0 14 mm cm ( ) [ ] , ; = + - * / . : ^ < > " # \n \t é 漢 🙂 fit multiple n width default'.split(
      ' ',
    ),
    '\n',
    ' ',
    '"text"',
    '\r\n',
  )
  const soup = fc.array(token, { maxLength: 60 }).map((tokens) => tokens.join(' '))
  const sane = (source: string) => {
    const report = evaluate(source)
    const lines = source.split('\n').length
    for (const fault of report.diagnostics) {
      expect(fault.line).toBeGreaterThanOrEqual(1)
      expect(fault.line).toBeLessThanOrEqual(lines)
      expect(fault.column).toBeGreaterThanOrEqual(1)
    }
    return report
  }

  test('token soup', () =>
    fc.assert(
      fc.property(soup, (source) => void sane(source)),
      { numRuns: 400 },
    ))

  test('real patterns with pieces cut out, doubled and strewn with soup', () => {
    const texts = demoNames.map(demo)
    fc.assert(
      fc.property(fc.constantFrom(...texts), fc.nat(1200), fc.nat(40), soup, (text, at, length, strewn) => {
        sane(text.slice(0, at) + strewn + text.slice(at + length))
      }),
      { numRuns: 250 },
    )
  })

  test.each([
    'ring A x 100000 as w\nround B\nrepeat 5000\nto w.first\nto w[50001]\nend',
    'ring A x 1000\nrepeat 100000\nto any A\ncheck "{count A}"\nend',
    'ring A x 1000\nrepeat 400\nrepeat 400\nrepeat 400\nreinforce\nend\nend\nend',
    'ring A x 99999 as w\nat each A in w\nloop 2B\nend',
    'let n = fit(S, A)\nring A x n\nrepeat 3000\nround A x7, B\nend',
    'repeat 200000\nring 3A\nend',
  ])('what would run away comes to an end: %j', (text) => void sane(head + text))

  test('a line of a megabyte, deep brackets and strange letters', () => {
    sane(`${head}ring ${'A '.repeat(500_000)}`)
    sane(`${head}ring ${'('.repeat(20_000)}`)
    sane(`${head}${'\u202e\u0000ﷺ'.repeat(2000)}`)
  })

  test('a tree kept up to date by pieces reads as the text parsed anew', () => {
    for (const name of demoNames) {
      const parsed = parsePattern(demo(name))
      expect(parsed.lines.length).toBeGreaterThan(10)
      expect(parsed.lines.every((line) => line.keyword !== '')).toBe(true)
    }
  })
})

test('the title is found without reading the rest', () => {
  expect(titleOf('# first\n  pattern  Heron   earrings # two\n')).toBe('Heron earrings')
  expect(titleOf('ring 3A')).toBe('Pattern without a name')
})

describe('docs/notation.md', () => {
  const page = readFileSync(path.join(__dirname, '../../../docs/notation.md'), 'utf8')
  const [whole = '', prelude = '', ...examples] = [...page.matchAll(/```tess\n([^`]*)```/g)].map(
    ([, text]) => text ?? '',
  )

  test('the whole pattern is the demo shop’s Windlass', () => {
    expect(counts(evaluate(whole))).toEqual(counts(evaluate(demo('windlass-pendant'))))
  })

  test.each(examples.map((example, i) => [i + 1, example]))('example %i has no fault', (_, example) => {
    const report = evaluate(String(example).startsWith('pattern') ? String(example) : prelude + example)
    expect(errorsIn(report)).toEqual([])
    expect(report.beads.some((bead) => bead.each > 0)).toBe(true)
  })

  test('every word has an example', () => {
    const used = new Set(
      examples
        .join('\n')
        .match(/^\s*[a-z]+/gm)
        ?.map((word) => word.trim()),
    )
    expect(statementWords.filter((word) => !used.has(word) && !['use'].includes(word))).toEqual([])
  })
})

describe('beads', () => {
  const bead = (words: string) =>
    evaluate(`pattern P\nbead A ${words}\npart p\nring 12A\n`).beads.find(({ role }) => role === 'A')?.bead
  test('may give measures of their own, and bugles any length', () => {
    expect(bead('round 11/0, L = 1.45 mm, d = 2.2 mm "mine"')).toMatchObject({
      lengthMm: 1.45,
      acrossMm: 2.2,
      boreMm: 0.8,
    })
    expect(bead('bugle 4.5 mm')).toMatchObject({ size: '4.5 mm', lengthMm: 4.5, massMg: 25 })
    expect(bead('drop 5 x 8 mm')).toMatchObject({ lengthMm: 3, acrossMm: 5, wideMm: 8, massMg: 229 })
  })
  test('follow the size of the pattern', () => {
    const text = (core: string) =>
      `pattern P\nsize small core = 3 mm default\nsize large core = ${core}\nbead A ${'bicone core "heart"'}\npart p\nring 12A\n`
    const { report } = evaluatePattern(text('6 mm'), { size: 'large' })
    expect(report.beads[0]).toMatchObject({ bead: { kind: 'bicone', size: '6 mm', massMg: 215 } })
    expect(errorsIn(evaluatePattern(text('7 mm'), { size: 'large' }).report)[0]).toMatchObject({
      message: 'There is no bicone in size 7 mm in the catalogue.',
    })
  })
  test('say what is wrong with a measure', () => {
    const fault = (words: string) => errorsIn(evaluate(`pattern P\nbead A ${words}\npart p\n`))[0]
    expect(fault('round 11/0, L = 14 mm')).toMatchObject({ message: 'No round 11/0 has L = 14 mm.' })
    expect(fault('round 11/0, length = 1.4 mm')?.message).toBe('"length" is not a measure of a bead.')
    expect(fault('round 11/0, d = 2.2')?.message).toBe('d is told in mm.')
  })
})

test.each([
  ['a sum', `let n = ${'1+'.repeat(100_000)}1`],
  ['a product', `let n = ${'2*'.repeat(50_000)}1`],
  ['minus signs', `let n = ${'-'.repeat(100_001)}1`],
  ['brackets', `let n = ${'('.repeat(100_000)}1`],
  ['brackets round beads', `ring ${'('.repeat(100_000)}A`],
  ['functions', `let n = ${'round('.repeat(50_000)}1`],
  ['places', `through a${'.next'.repeat(50_000)}`],
  ['indices', `through ${'a['.repeat(50_000)}1`],
  ['repeats', `${'repeat 2\n'.repeat(5_000)}round A`],
])('%s without end are read, told and formatted, and end nothing', (_, line) => {
  const source = `${head}ring 6A\n${line}\n`
  expect(counts(evaluate(source))).toEqual({ A: 6 })
  expect(formatPattern(source).length).toBeGreaterThan(source.length / 2)
})
