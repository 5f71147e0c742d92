import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { spokenUnits } from '@tessellum/core/stock/spoken-units'
import { figuresOf } from '../src/patterns/ledger-figures'

const metric = spokenUnits('metric', 'ISO')
const of = (source: string, lines = source.split('\n').length) =>
  figuresOf(evaluatePattern(source).report.statements, lines, metric)

const ring = `pattern P
bead A cylinder 11/0
bead B cylinder 11/0
part p
let n = 6 mm
ring 6A 2B
round B`

test('a line tells the beads that it adds, its stitches and its thread; a value what it comes to', () => {
  const [value, first, second, ...rest] = of(ring)
  expect(rest).toEqual([])
  expect(value).toEqual({ line: 5, stitches: '', added: '= 6 mm', thread: '' })
  expect(first).toMatchObject({ line: 6, added: '+6 A +2 B' })
  expect(second).toMatchObject({ line: 7, stitches: '4 st', added: '+4 B' })
  expect([first?.thread, second?.thread]).toEqual([expect.stringMatching(/ mm$/), expect.stringMatching(/ mm$/)])
})

test('lines that have gone from the text since are told nothing of', () => {
  expect(of(ring, 6).map(({ line }) => line)).toEqual([5, 6])
})

const demos = path.join(__dirname, '../../../demo/patterns')
test.each(readdirSync(demos))('%s: what its lines add comes to what the whole piece has', (file) => {
  const source = readFileSync(path.join(demos, file), 'utf8')
  const { report } = evaluatePattern(source)
  const told = new Map<string, number>()
  for (const { added } of of(source))
    for (const [, count, role] of added.matchAll(/\+(\d+) (\S+)/g))
      told.set(role as string, (told.get(role as string) ?? 0) + Number(count))
  expect(Object.fromEntries(told)).toEqual(
    Object.fromEntries(report.beads.filter(({ each }) => each > 0).map(({ role, each }) => [role, each])),
  )
})
