/** What a hand stitches, found again as lines. */
import { readdirSync } from 'node:fs'
import path from 'node:path'
import fc from 'fast-check'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { type HandPass, passesOf } from '../src/hand/hand-pass'
import { recognise } from '../src/hand/recognise'
import { SoFar } from '../src/hand/so-far'
import { tokensIn } from '../src/hand/tokens'
import type { Line } from '../src/notation/line'
import { parsePattern } from '../src/notation/parse'
import { isBlockWord } from '../src/notation/words'
import { randomPattern } from './follower/random-patterns'
import { allDemos, demo, passes, testPiece } from './support'

interface Worked {
  readonly line: Line
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

const pieces = readdirSync(path.join(__dirname, 'pieces')).map((file) => file.replace('.tess', ''))

test('measure', () => {
  let lines = 0
  let same = 0
  const missed: string[] = []
  let slowest = 0
  for (const [name, source] of [
    ...allDemos.map((name) => [name, demo(name)] as const),
    ...pieces.map((name) => [name, testPiece(name)] as const),
    ...fc.sample(randomPattern, { numRuns: 150, seed: 11 }).map((source, i) => [`random ${i}`, source] as const),
  ]) {
    for (const { line, from, hand } of worked(source)) {
      const soFar = SoFar.of(source, {}, line.number - 1)
      if (!(soFar instanceof SoFar)) continue
      lines++
      const begun = performance.now()
      const all = recognise(soFar, hand)
      slowest = Math.max(slowest, performance.now() - begun)
      const restep = from !== soFar.machine.work.passes
      const found = all.filter((each) => each.restepped === restep)
      const exact = found.find(({ done }) => done) ?? found[0]
      if (exact && exact.tokens <= tokensIn(line)) same++
      else missed.push(`${name} ${line.number}: ${line.text}  ->  ${exact?.line} (${exact?.more})`)
      if (!exact) continue
      const mark = / as [a-z_0-9]+(, all)?/.exec(line.text)?.[0] ?? ''
      const text = / no step$/.test(exact.line)
        ? exact.line.replace(/ no step$/, `${mark} no step`)
        : `${exact.line}${mark}`
      const put = source.slice(0, line.from) + text + source.slice(line.to)
      if (passes(put).join(' ') !== passes(source).join(' '))
        missed.push(`WRONG ${name} ${line.number}: ${line.text} -> ${text}`)
    }
  }
  console.log(lines, same, slowest, missed.join('\n'))
})
