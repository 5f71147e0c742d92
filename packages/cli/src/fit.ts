import type { Stone } from '@tessellum/core/catalogue/stone'
import { threadKinds } from '@tessellum/core/catalogue/thread'
import { sayPercent, trim } from '@tessellum/core/measure/units'
import { readStone, stoneOf } from '@tessellum/core/notation/parse-stone'
import { bandLength, fromJapan, fromUk, fromUs } from '@tessellum/core/sizing/finger'
import { girth } from '@tessellum/core/sizing/girth'
import { fitLength } from '@tessellum/core/sizing/repeats'
import { fitRing } from '@tessellum/core/sizing/ring-fit'
import { fitStand, type StandFit, spreadIncreases } from '@tessellum/core/sizing/stand'
import { readArguments, readLength, readWhole } from './arguments'
import { beadFrom, noNames, read } from './bead'
import { InputFault, Misuse } from './trouble'

const options = {
  stone: { type: 'string' },
  bead: { type: 'string' },
  multiple: { type: 'string' },
  core: { type: 'string' },
  rows: { type: 'string' },
  target: { type: 'string' },
  ends: { type: 'string' },
  pitch: { type: 'string' },
  us: { type: 'string' },
  uk: { type: 'string' },
  japan: { type: 'string' },
  inside: { type: 'string' },
  top: { type: 'string' },
  thickness: { type: 'string' },
  json: { type: 'boolean' },
} as const

type Values = ReturnType<typeof readArguments<typeof options>>['values']

const questions: Readonly<
  Record<string, (values: Values) => { readonly answer: object; readonly told: readonly string[] }>
> = { ring, stand, length, finger }

/** `fit ring|stand|length|finger`: a question of sizing. */
export function fit(args: string[]): string {
  const [kind = '', ...rest] = args
  const question = Object.hasOwn(questions, kind) ? questions[kind] : undefined
  if (!question) throw new Misuse(`fit what? ring, stand, length or finger, not "${kind}".`)
  const { values } = readArguments(rest, options)
  try {
    const { answer, told } = question(values)
    return values.json ? `${JSON.stringify(answer, null, 2)}\n` : `${told.join('\n')}\n`
  } catch (error) {
    if (error instanceof RangeError) throw new InputFault(error.message)
    throw error
  }
}

function ring(values: Values) {
  const stone = stoneFrom(needed(values.stone, 'stone'))
  const { targetMm, ideal, candidates, best } = fitRing(
    girth(stone.outline),
    beadFrom(needed(values.bead, 'bead')),
    readWhole(values.multiple, 'multiple', 2),
  )
  return {
    answer: { targetMm, ideal, candidates, best },
    told: [
      `target ${trim(targetMm, 1)} mm, ideal ${trim(ideal, 1)}`,
      ...candidates.map(
        ({ count, ease, verdict }) => `${count === best ? '*' : ' '} ${count}  ${sayPercent(ease)}  ${verdict}`,
      ),
    ],
  }
}

function stand(values: Values) {
  const bead = beadFrom(needed(values.bead, 'bead'))
  const threadMm = threadKinds.find((thread) => thread.kind === 'braid' && thread.size === '6 lb')?.acrossMm ?? 0.15
  let radius = readLength(values.core, 'core') / 2
  const rows: (StandFit & { readonly row: number; readonly increasesAt: readonly number[] })[] = []
  for (let row = 1; row <= readWhole(values.rows, 'rows', 1); row++) {
    const found = fitStand(radius, bead, threadMm)
    const before = rows[rows.length - 1]
    rows.push({ row, ...found, increasesAt: before ? spreadIncreases(before.count, found.count - before.count) : [] })
    radius = found.outerRadiusMm
  }
  return {
    answer: { rows },
    told: rows.map(
      ({ row, count, gapMm, oneMore, outerRadiusMm }) =>
        `row ${row}: ${count}, gap ${trim(gapMm, 2)} mm${oneMore ? ` (or ${count + 1})` : ''}, out to ${trim(outerRadiusMm, 2)} mm`,
    ),
  }
}

function length(values: Values) {
  const target = readLength(values.target, 'target')
  const found = fitLength(
    target,
    readLength(values.pitch, 'pitch'),
    readLength(values.ends, 'ends', 0),
    readWhole(values.multiple, 'multiple', 1),
  )
  return {
    answer: found,
    told: [
      `ideal ${trim(found.ideal, 2)}`,
      ...found.candidates.map(
        ({ count, lengthMm }) => `${count === found.best ? '*' : ' '} ${count}  ${trim(lengthMm, 1)} mm`,
      ),
    ],
  }
}

/** A finger ring's band: round the finger at its middle, less the top piece it is joined to. */
function finger(values: Values) {
  const insideMm = insideOf(values)
  const thickness = readLength(values.thickness, 'thickness', 0)
  const around = bandLength(insideMm, thickness)
  const found = fitLength(
    around,
    readLength(values.pitch, 'pitch'),
    readLength(values.top, 'top', 0),
    readWhole(values.multiple, 'multiple', 1),
  )
  return {
    answer: { insideMm, aroundMm: around, ...found },
    told: [
      `inside ${trim(insideMm, 1)} mm, along the middle ${trim(around, 1)} mm, ideal ${trim(found.ideal, 2)} units`,
      ...found.candidates.map(
        ({ count, lengthMm }) => `${count === found.best ? '*' : ' '} ${count}  ${trim(lengthMm, 1)} mm`,
      ),
    ],
  }
}

function insideOf(values: Values): number {
  if (values.us !== undefined) return fromUs(numberOf(values.us, 'us'))
  if (values.japan !== undefined) return fromJapan(numberOf(values.japan, 'japan'))
  if (values.uk !== undefined) return fromUk(values.uk)
  return readLength(values.inside, 'inside')
}

function numberOf(text: string, name: string): number {
  const number = Number(text)
  if (!Number.isFinite(number) || number < 0) throw new Misuse(`--${name} is "${text}"; give a number.`)
  return number
}

function needed(text: string | undefined, name: string): string {
  if (text === undefined) throw new Misuse(`--${name} is needed.`)
  return text
}

function stoneFrom(text: string): Stone {
  return read(text, (cursor) => stoneOf(readStone(cursor), noNames))
}
