import type { StatementReport } from '../report/report'
import type { Scene } from './scene'
import { type View, viewOf } from './view'

/** Beyond so many, drawings of single lines say nothing on paper any more. */
const mostDrawn = 60

/** The drawings of a written pattern: by line, what it adds and passes; only lines that do either. */
export function stepViews(scene: Scene, statements: readonly StatementReport[]): Record<number, View> {
  const doing = new Set(scene.passes.map((pass) => pass.statement))
  const drawn = statements.flatMap(({ line }, statement) => (doing.has(statement) ? [[line, statement] as const] : []))
  return Object.fromEntries(drawn.slice(0, mostDrawn).map(([line, statement]) => [line, viewOf(scene, { statement })]))
}
