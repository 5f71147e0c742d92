import { writeFileSync } from 'node:fs'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { sceneOf } from '@tessellum/core/drawing/scene'
import { sceneAfter } from '@tessellum/core/drawing/step-views'
import { svgOf } from '@tessellum/core/drawing/svg'
import { type Face, faces, viewOf } from '@tessellum/core/drawing/view'
import { readArguments, readWhole } from './arguments'
import { choicesFrom, formFile, orFaults, patternOptions } from './pattern'
import { InputFault, Misuse } from './trouble'

/** `draw FILE --view front|back|side --statement N -o out.svg`: the piece, or what one line does, as a vector drawing. */
export function draw(args: string[]): string {
  const { values, positionals } = readArguments(args, {
    ...patternOptions,
    view: { type: 'string' },
    statement: { type: 'string' },
    out: { type: 'string', short: 'o' },
  })
  const face = (values.view ?? 'front') as Face
  if (!faces.includes(face)) throw new Misuse(`--view is "${values.view}"; it can be ${faces.join(', ')}.`)
  const line = values.statement === undefined ? undefined : readWhole(values.statement, 'statement', 1)
  const { evaluated, form, unformed } = formFile(positionals[0], choicesFrom(values))
  const { report } = evaluated
  if (!form) throw new InputFault(unformed?.why ?? 'There is nothing to draw.')
  const statement = line === undefined ? undefined : report.statements.findIndex((each) => each.line === line)
  if (statement === -1)
    throw new Misuse(`Line ${line} does nothing; these do: ${report.statements.map((each) => each.line).join(', ')}.`)
  const view =
    statement === undefined
      ? viewOf(sceneOf(evaluated, form), { face })
      : viewOf(sceneAfter(statement, evaluated, form), { face, statement })
  const where = line === undefined ? `from the ${face}` : `line ${line}, from the ${face}`
  const svg = svgOf(view, {
    title: `${report.pattern || 'Pattern'}, ${where}`,
    colours: roleColours(report.beads.map((bead) => bead.role)),
    unsound: !report.form?.sound,
  })
  if (values.out === undefined) return orFaults(report, svg)
  try {
    writeFileSync(values.out, svg)
  } catch (error) {
    throw new Misuse(`${values.out} cannot be written: ${(error as Error).message}`)
  }
  return orFaults(report, '')
}
