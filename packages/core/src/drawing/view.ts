/** A scene seen from one side and laid flat: shapes from back to front, y downward, ready for any vector renderer. */

import { bodyOf, sameAllRound } from './body'
import type { Scene, SceneBead, SceneStone } from './scene'
import { silhouetteOf } from './silhouette'
import { stoneSilhouette } from './stone-silhouette'

export type Face = 'front' | 'back' | 'side'
export const faces: readonly Face[] = ['front', 'back', 'side']

/** How a bead is told apart in the drawing of one statement. */
export type BeadState = 'new' | 'passed'

export interface ViewBead {
  readonly type: 'bead'
  readonly bead: number
  readonly role: string
  readonly statement: number
  readonly state: BeadState | undefined
  readonly cx: number
  readonly cy: number
  /** Of the hole, degrees clockwise on the page. */
  readonly turn: number
  /** Which of the view's bodies it shows. */
  readonly body: string
}

/** A bead as it is seen, about its middle, its hole to the right: beads that lie alike share one. */
export interface ViewBody {
  readonly outline: string
  /** Its edges and facets; empty for a smooth one. */
  readonly lines: string
  /** Along the hole and across it. */
  readonly length: number
  readonly across: number
  /** Mouths of its holes that are turned toward the eye. */
  readonly mouths: readonly { readonly x: number; readonly y: number; readonly rx: number; readonly ry: number }[]
}

export type ViewShape =
  | ViewBead
  | { readonly type: 'stone'; readonly letter: string; readonly path: string; readonly lines: string }
  | { readonly type: 'wire'; readonly path: string; readonly width: number }
  | { readonly type: 'thread'; readonly path: string }
  /** Everything that was there before the statement drawn: one path, beneath the rest. */
  | { readonly type: 'earlier'; readonly path: string }

export interface View {
  readonly shapes: readonly ViewShape[]
  readonly bodies: Readonly<Record<string, ViewBody>>
  /** x, y, width, height in mm with a margin. */
  readonly box: readonly [number, number, number, number]
  /** In the drawing of one statement: the way the thread goes in it, and where it begins and ends. */
  readonly way: { readonly path: string; readonly from: Point; readonly to: Point } | undefined
}

/** Of what came over the wire. */
export const isView = (value: unknown): value is View =>
  typeof value === 'object' && value !== null && 'shapes' in value && 'box' in value

type Point = readonly [x: number, y: number]

export interface ViewChoice {
  readonly face?: Face
  /** Only what there is when this statement has been done; its own beads are new. */
  readonly statement?: number
  /** Thread between beads, where it shows. */
  readonly thread?: boolean
}

/** The page's axes in the piece's: right, up, toward the eye. */
const axes = {
  front: { right: [1, 0, 0], up: [0, 1, 0], near: [0, 0, 1] },
  back: { right: [-1, 0, 0], up: [0, 1, 0], near: [0, 0, -1] },
  side: { right: [0, 0, -1], up: [0, 1, 0], near: [1, 0, 0] },
} as const

export function viewOf(scene: Scene, choice: ViewChoice = {}): View {
  const { face = 'front', statement, thread = true } = choice
  const see = seenFrom(face)
  const span = statement === undefined ? undefined : spanOf(scene, statement)
  const last = span ? span.to : scene.passes.length
  const states = span ? statesOf(scene, span) : undefined
  const there = new Uint8Array(scene.beads.length)
  for (let pass = 0; pass < last; pass++) there[scene.passes[pass]?.bead ?? 0] = 1

  const bodies = new Bodies()
  const deep: { depth: number; order: number; shape: ViewShape }[] = []
  const earlier: string[] = []
  let box = nothing
  scene.beads.forEach((bead, i) => {
    if (!there[i]) return
    const state = states?.get(i)
    const { seen, ...shape } = beadSeen(scene, bead, i, see, state, bodies)
    box = around(box, shape.cx, shape.cy, Math.max(seen.length, seen.across) / 2)
    if (states && state === undefined) earlier.push(outlineOf(shape, seen.points))
    else deep.push({ depth: see.depth(scene.poses, 9 * i), order: i, shape })
  })
  if (thread && !span) deep.push(...threadsSeen(scene, last, see))
  for (const stone of scene.stones)
    if (statement === undefined || stone.statement <= statement) deep.push(stoneSeen(stone, see))
  for (const { middle, outerMm, wireMm } of scene.rings) {
    const points = Array.from({ length: 73 }, (_, i): Point => {
      const angle = (i / 36) * Math.PI
      const r = outerMm - wireMm / 2
      return see.point([middle[0] + r * Math.cos(angle), middle[1] + r * Math.sin(angle), middle[2]], 0)
    })
    deep.push({ depth: see.depth(middle, 0), order: 0, shape: { type: 'wire', path: pathOf(points), width: wireMm } })
  }
  deep.sort((a, b) => a.depth - b.depth || a.order - b.order)
  const shapes = deep.map(({ shape }) => shape)
  // A stone lies beneath what is outlined, so that the work behind it can be followed.
  if (earlier.length > 0) {
    const stones = shapes.filter(({ type }) => type === 'stone')
    const others = shapes.filter(({ type }) => type !== 'stone')
    shapes.splice(0, shapes.length, ...stones, { type: 'earlier', path: earlier.join('') }, ...others)
  }
  return { shapes, bodies: bodies.used(shapes), box: framed(box, scene, see), way: span && wayOf(scene, span, see) }
}

interface Sight {
  readonly point: (at: ArrayLike<number>, from: number) => Point
  readonly depth: (at: ArrayLike<number>, from: number) => number
  readonly face: Face
}

function seenFrom(face: Face): Sight {
  const { right, up, near } = axes[face]
  const along = (axis: readonly number[], at: ArrayLike<number>, from: number) =>
    (axis[0] as number) * (at[from] as number) +
    (axis[1] as number) * (at[from + 1] as number) +
    (axis[2] as number) * (at[from + 2] as number)
  return {
    point: (at, from) => [along(right, at, from), -along(up, at, from)],
    depth: (at, from) => along(near, at, from),
    face,
  }
}

/** Passes from..to. */
interface PassSpan {
  readonly from: number
  readonly to: number
}

/** A line that is done more than once is shown the first time it is done. */
function spanOf({ passes }: Scene, statement: number): PassSpan {
  const from = passes.findIndex((pass) => pass.statement === statement)
  if (from < 0) {
    const after = passes.findIndex((pass) => pass.statement > statement)
    const to = after < 0 ? passes.length : after
    return { from: to, to }
  }
  let to = from
  while (passes[to]?.doing === passes[from]?.doing) to++
  return { from, to }
}

function statesOf(scene: Scene, { from, to }: PassSpan): ReadonlyMap<number, BeadState> {
  const states = new Map<number, BeadState>()
  for (let pass = from; pass < to; pass++) {
    const { bead, fresh } = scene.passes[pass] as Scene['passes'][number]
    if (fresh) states.set(bead, 'new')
    else if (!states.has(bead)) states.set(bead, 'passed')
  }
  return states
}

function wayOf(scene: Scene, { from, to }: PassSpan, see: Sight): View['way'] {
  if (from >= to) return undefined
  const points: Point[] = []
  const first = from > 0 && !scene.passes[from]?.begins ? from - 1 : from
  for (let pass = first; pass < to; pass++) {
    if (pass > first || first === from) points.push(see.point(scene.thread, 6 * pass))
    points.push(see.point(scene.thread, 6 * pass + 3))
  }
  return { path: pathOf(points), from: points[0] as Point, to: points[points.length - 1] as Point }
}

const fixed = (value: number) => Math.round(value * 1000) / 1000
const pathOf = (points: readonly Point[]) => `M${points.map(([x, y]) => `${fixed(x)} ${fixed(y)}`).join('L')}`

/** Steps of the tilt of a hole toward the eye: beads that lie nearly alike are drawn alike. */
const tilts = 20

interface Seen {
  readonly body: ViewBody
  readonly points: readonly Point[]
  readonly length: number
  readonly across: number
}

/** The bodies of one view. */
class Bodies {
  private readonly known = new Map<string, Seen>()

  /** @param along, wide as seen: right, down, near */
  seen(
    key: string,
    bead: SceneBead,
    along: readonly [number, number, number],
    wide: readonly [number, number, number],
  ) {
    const known = this.known.get(key)
    if (known) return known
    const { outline, lines, mouths } = silhouetteOf(bodyOf(bead), bead.boreMm, along, wide)
    const [length, across] = [0, 1].map(
      (k) => 2 * Math.max(...outline.map((point) => Math.abs(point[k as 0 | 1]))),
    ) as [number, number]
    const made: Seen = {
      points: outline,
      length,
      across,
      body: {
        outline: `${coarse(outline)}Z`,
        lines: lines.map(coarse).join(''),
        length: fixed(length),
        across: fixed(across),
        mouths: mouths.map(({ at: [x, y], rx, ry }) => ({ x: fixed(x), y: fixed(y), rx: fixed(rx), ry: fixed(ry) })),
      },
    }
    this.known.set(key, made)
    return made
  }

  used(shapes: readonly ViewShape[]): Record<string, ViewBody> {
    const keys = new Set(shapes.flatMap((shape) => (shape.type === 'bead' ? [shape.body] : [])))
    return Object.fromEntries([...this.known].flatMap(([key, { body }]) => (keys.has(key) ? [[key, body]] : [])))
  }
}

/** Hundredths of a millimetre are finer than any line. */
const coarse = (points: readonly Point[]) =>
  `M${points.map(([x, y]) => `${Math.round(x * 100) / 100} ${Math.round(y * 100) / 100}`).join('L')}`

function beadSeen(
  scene: Scene,
  bead: SceneBead,
  i: number,
  see: Sight,
  state: BeadState | undefined,
  bodies: Bodies,
): ViewBead & { seen: Seen } {
  const { poses } = scene
  const [cx, cy] = see.point(poses, 9 * i)
  const [ax, ay] = see.point(poses, 9 * i + 3)
  const [wx, wy] = see.point(poses, 9 * i + 6)
  const near = see.depth(poses, 9 * i + 3)
  const turned = sameAllRound(bodyOf(bead))
  // What is turned about its hole looks the same from either end of it: the nearer one is drawn.
  const toward = turned && near < 0 ? -1 : 1
  const flat = Math.hypot(ax, ay)
  // Seen end on, a bead with two bores lies along the way from one to the other.
  const [dx, dy] = flat > 0.08 ? [(toward * ax) / flat, (toward * ay) / flat] : wx || wy ? [wy, -wx] : [1, 0]
  const onPage = (x: number, y: number, z: number) => [x * dx + y * dy, y * dx - x * dy, z] as const
  const tilt = Math.round(Math.abs(near) * tilts) / tilts
  const seen = turned
    ? bodies.seen(`${bead.role} ${tilt}`, bead, [Math.sqrt(1 - tilt * tilt), 0, tilt], [0, 1, 0])
    : bodies.seen(`${i}`, bead, onPage(ax, ay, near), onPage(wx, wy, see.depth(poses, 9 * i + 6)))
  return {
    type: 'bead',
    bead: i,
    role: bead.role,
    statement: bead.statement,
    state,
    cx: fixed(cx),
    cy: fixed(cy),
    turn: fixed((Math.atan2(dy, dx) * 180) / Math.PI),
    body: turned ? `${bead.role} ${tilt}` : `${i}`,
    seen,
  }
}

function* stretches(scene: Scene, last: number): Generator<[number, number]> {
  for (let pass = 1; pass < last; pass++) if (!scene.passes[pass]?.begins) yield [6 * (pass - 1) + 3, 6 * pass]
}

/** Thread between beads, each stretch once. */
function threadsSeen(scene: Scene, last: number, see: Sight) {
  const seen = new Set<string>()
  const shapes: { depth: number; order: number; shape: ViewShape }[] = []
  for (const [from, to] of stretches(scene, last)) {
    const [a, b] = [see.point(scene.thread, from), see.point(scene.thread, to)]
    if (Math.hypot(b[0] - a[0], b[1] - a[1]) < 0.1) continue
    const path = pathOf([a, b])
    if (seen.has(path)) continue
    seen.add(path)
    const depth = (see.depth(scene.thread, from) + see.depth(scene.thread, to)) / 2
    shapes.push({ depth, order: 0, shape: { type: 'thread', path } })
  }
  return shapes
}

function stoneSeen(stone: SceneStone, see: Sight) {
  const { outline, lines } = stoneSilhouette(stone, (at) => see.point(at, 0), see.depth(stone.front, 0))
  const path = `${coarse(outline)}Z`
  return {
    depth: see.depth(stone.middle, 0),
    order: 0,
    shape: { type: 'stone', letter: stone.letter, path, lines: lines.map(coarse).join('') } as const,
  }
}

type Bounds = readonly [left: number, top: number, right: number, bottom: number]
const nothing: Bounds = [Infinity, Infinity, -Infinity, -Infinity]

const around = ([left, top, right, bottom]: Bounds, x: number, y: number, reach: number): Bounds => [
  Math.min(left, x - reach),
  Math.min(top, y - reach),
  Math.max(right, x + reach),
  Math.max(bottom, y + reach),
]

/** With room for its stones, and a margin. */
function framed(beads: Bounds, scene: Scene, see: Sight): View['box'] {
  const margin = 1.5
  let box = beads
  for (const { middle, outline, frontMm, backMm } of scene.stones) {
    const [x, y] = see.point(middle, 0)
    for (const point of outline) box = around(box, see.face === 'side' ? x : x + point[0], y - point[1], 0)
    if (see.face === 'side') box = around(box, x, y, Math.max(frontMm, backMm))
  }
  const [left, top, right, bottom] = box
  if (left > right) return [-10, -10, 20, 20]
  return [fixed(left - margin), fixed(top - margin), fixed(right - left + 2 * margin), fixed(bottom - top + 2 * margin)]
}

/** A bead's outline as it lies on the page. */
function outlineOf({ cx, cy, turn }: Pick<ViewBead, 'cx' | 'cy' | 'turn'>, points: readonly Point[]): string {
  const angle = (turn * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  return `${coarse(points.map(([x, y]) => [cx + x * cos - y * sin, cy + x * sin + y * cos]))}Z`
}
