/** A scene flattened for the page: shapes from back to front, y downward, ready for any vector renderer. */
import type { Scene, SceneBead } from './scene'

export type Face = 'front' | 'back'

export type ViewShape =
  | {
      readonly type: 'bead'
      readonly bead: number
      readonly role: string
      readonly statement: number
      readonly cx: number
      readonly cy: number
      /** Of the hole, degrees clockwise on the page. */
      readonly turn: number
      readonly length: number
      readonly across: number
      /** Corner radius: a cylinder's are small, a round bead is all corner. */
      readonly corner: number
    }
  | { readonly type: 'stone'; readonly path: string }

export interface View {
  readonly shapes: readonly ViewShape[]
  /** x, y, width, height in mm with a margin. */
  readonly box: readonly [number, number, number, number]
}

export function viewOf(scene: Scene, face: Face = 'front'): View {
  const mirror = face === 'front' ? 1 : -1
  const ordered = [...scene.beads].sort((a, b) => (a.z - b.z) * mirror || a.bead - b.bead)
  // The stone lies between the beads behind its widest part and those in front of it.
  const behind = ordered.filter((bead) => bead.z * mirror < 0).map((bead) => shapeOf(bead, mirror))
  const before = ordered.filter((bead) => bead.z * mirror >= 0).map((bead) => shapeOf(bead, mirror))
  const stone: ViewShape[] = scene.stone
    ? [{ type: 'stone', path: `M${scene.stone.map(({ x, y }) => `${fixed(x * mirror)} ${fixed(-y)}`).join('L')}Z` }]
    : []
  return { shapes: [...behind, ...stone, ...before], box: boxOf(scene, mirror) }
}

const fixed = (value: number) => Number(value.toFixed(3))

function shapeOf(bead: SceneBead, mirror: number): ViewShape {
  const degrees = (-bead.angle * 180) / Math.PI
  return {
    type: 'bead',
    bead: bead.bead,
    role: bead.role,
    statement: bead.statement,
    cx: fixed(bead.x * mirror),
    cy: fixed(-bead.y),
    turn: fixed(degrees * mirror),
    length: bead.lengthMm,
    across: bead.acrossMm,
    corner: fixed(cornerOf(bead)),
  }
}

/** From a sharp-edged cube (6) through a cylinder (4) to a round bead (2.5 and below). */
const cornerOf = ({ contact, lengthMm, acrossMm }: SceneBead) => {
  const most = Math.min(lengthMm, acrossMm) / 2
  return contact <= 2.5 ? most : contact >= 6 ? most * 0.2 : most * 0.45
}

function boxOf(scene: Scene, mirror: number): View['box'] {
  const margin = 1.5
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  const take = (x: number, y: number, around: number) => {
    left = Math.min(left, x - around)
    right = Math.max(right, x + around)
    top = Math.min(top, y - around)
    bottom = Math.max(bottom, y + around)
  }
  for (const bead of scene.beads) take(bead.x * mirror, -bead.y, Math.max(bead.lengthMm, bead.acrossMm) / 2)
  for (const point of scene.stone ?? []) take(point.x * mirror, -point.y, 0)
  if (left > right) return [-10, -10, 20, 20]
  return [fixed(left - margin), fixed(top - margin), fixed(right - left + 2 * margin), fixed(bottom - top + 2 * margin)]
}
