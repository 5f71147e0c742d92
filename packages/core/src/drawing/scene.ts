/** The piece as it lies: what every renderer draws. x to the right, y up, z toward the eye in front, mm. */
import type { StoneProfile } from '../catalogue/stone'
import type { Form } from '../form/form'
import { pointAt, shapeOfBead } from '../form/piece'
import { wireMm } from '../form/seat'
import { pointsOfFrame, type Shape } from '../form/shape'
import { stoneFaces } from '../form/solid'
import type { Vector } from '../form/vector'
import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import { outlineOf } from '../sizing/outline'
import { beadOf, entryOf, exitOf, type Hole } from '../stitch/hole'
import type { BodyMeasures } from './body'

/** What a bead is, wherever it lies. */
export interface SceneBead extends BodyMeasures {
  readonly role: string
  readonly statement: number
}

export interface SceneStone {
  readonly letter: string
  readonly middle: Vector
  /** The ways to its right and to its front. */
  readonly right: Vector
  readonly front: Vector
  /** Its widest line, about its middle. */
  readonly outline: readonly (readonly [x: Mm, y: Mm])[]
  readonly frontMm: Mm
  readonly backMm: Mm
  readonly profile: StoneProfile
  /** The line that lays it in; -1 where it is there from the beginning. */
  readonly statement: number
}

export interface Scene {
  readonly beads: readonly SceneBead[]
  /** Nine numbers a bead: its middle, the way of its hole, its wide way across it (any where it lies the same all round). */
  readonly poses: Float32Array
  /** Six numbers a pass: where the thread goes in and where it comes out. */
  readonly thread: Float32Array
  readonly passes: readonly ScenePass[]
  readonly stones: readonly SceneStone[]
  /** The wire rings that beads stand round. */
  readonly rings: readonly { readonly middle: Vector; readonly outerMm: Mm; readonly wireMm: Mm }[]
}

export interface ScenePass {
  readonly bead: number
  readonly hole: Hole
  readonly statement: number
  /** Counts up with each doing of a line: a repeat's second turn is another doing. */
  readonly doing: number
  readonly fresh: boolean
  /** A thread begins here. */
  readonly begins: boolean
}

export function sceneOf(evaluated: EvaluatedPattern, form: Form): Scene {
  const { work, roles, letterOf } = evaluated
  const { piece, seats } = form
  const beads: SceneBead[] = Array.from({ length: work.beads }, (_, bead) => {
    const { bead: record } = piece.shapes[piece.shapeOf[bead] as number] as Shape
    const { size: _size, massMg: _mass, maker: _maker, ...measures } = record
    return { role: letterOf(work.role(bead)), statement: work.statementOfBead(bead), ...measures }
  })
  const begins = new Set(work.threads)
  let doing = -1
  const passes = Array.from({ length: work.passes }, (_, pass): ScenePass => {
    if (work.doings[doing + 1] === pass) doing++
    return {
      bead: beadOf(work.holeAt(pass)),
      hole: work.holeAt(pass),
      statement: work.statementAt(pass),
      doing,
      fresh: work.isNew(pass),
      begins: begins.has(pass),
    }
  })
  const stones = seats.flatMap(({ stone: letter, solid }): SceneStone[] => {
    const role = letter === undefined ? undefined : roles.get(letter)
    if (role?.type !== 'stone' || !solid) return []
    const outline = outlineOf(role.stone.outline)
    const { front, back } = stoneFaces(role.stone)
    return [
      {
        letter: role.letter,
        middle: Array.from(solid.at) as unknown as Vector,
        right: Array.from(solid.right) as unknown as Vector,
        front: Array.from(solid.front) as unknown as Vector,
        outline: Array.from({ length: 96 }, (_, i) => outline(i / 96)).map(({ x, y }) => [x, y] as const),
        frontMm: front,
        backMm: back,
        profile: role.stone.profile,
        statement: evaluated.report.statements.findIndex(
          ({ action }) => action.type === 'place' && action.role === role.letter,
        ),
      },
    ]
  })
  const rings = seats.flatMap(({ stone, solid }) =>
    stone === undefined && solid
      ? [{ middle: Array.from(solid.at) as unknown as Vector, outerMm: solid.wideMm / 2, wireMm }]
      : [],
  )
  return { beads, ...posesOf(form), passes, stones, rings }
}

/** Where everything lies now: the part of a scene that changes while the piece settles. */
export function posesOf({ piece }: Form): Pick<Scene, 'poses' | 'thread'> {
  const { work, at, rodOf } = piece
  const poses = new Float32Array(work.beads * 9)
  for (let bead = 0; bead < work.beads; bead++) {
    const points = shapeOfBead(piece, bead).frame?.points
    const count = points ? pointsOfFrame : 2
    const p = 6 * (rodOf[bead] as number)
    const axis = new Float64Array(3)
    const side = new Float64Array(3)
    for (let k = 0; k < count; k++) {
      // Without a frame, its first end and its second.
      const [along, wide] = points ? [points[2 * k] as number, points[2 * k + 1] as number] : [2 * k - 1, 0]
      for (let c = 0; c < 3; c++) {
        const x = at[p + 3 * k + c] as number
        poses[9 * bead + c] = (poses[9 * bead + c] as number) + x / count
        axis[c] = (axis[c] as number) + along * x
        side[c] = (side[c] as number) + wide * x
      }
    }
    normalise(axis)
    if (!points) across(axis, side)
    else normalise(side)
    poses.set(axis, 9 * bead + 3)
    poses.set(side, 9 * bead + 6)
  }
  const thread = new Float32Array(work.passes * 6)
  for (let pass = 0; pass < work.passes; pass++) {
    const h = work.holeAt(pass)
    for (const [i, end] of [entryOf(h), exitOf(h)].entries()) {
      const p = 3 * pointAt(piece, end)
      for (let k = 0; k < 3; k++) thread[6 * pass + 3 * i + k] = at[p + k] as number
    }
  }
  return { poses, thread }
}

function normalise(a: Float64Array): void {
  const length = Math.hypot(a[0] as number, a[1] as number, a[2] as number) || 1
  for (let k = 0; k < 3; k++) a[k] = (a[k] as number) / length
}

/** Some way square to the hole. */
function across(axis: Float64Array, into: Float64Array): void {
  const [x, y, z] = [axis[0] as number, axis[1] as number, axis[2] as number]
  const flat = Math.abs(z) < 0.9
  into.set(flat ? [-y, x, 0] : [0, -z, y])
  normalise(into)
}
