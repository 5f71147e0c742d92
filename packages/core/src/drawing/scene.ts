/**
 * The piece laid out from its seats: what every renderer draws. Rows climb the stone's edge and turn in over its faces; loops
 * hang outward from the bead they began at. The arrangement is reckoned from rails, not yet settled by thread and contact.
 */
import type { Bead } from '../catalogue/bead'
import type { Stone, StoneShape } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import type { Reckoned } from '../report/reckon-pattern'
import { type Outline, outlineOf } from '../sizing/outline'
import { beadOf } from '../stitch/hole'
import { standing, type Work } from '../stitch/work'

export interface SceneBead {
  readonly bead: number
  readonly role: string
  readonly statement: number
  /** Centre; x to the right, y up, z towards the eye in front. */
  readonly x: Mm
  readonly y: Mm
  readonly z: Mm
  /** Direction of the hole as seen from the front, radians. */
  readonly angle: number
  readonly lengthMm: Mm
  readonly acrossMm: Mm
  readonly contact: number
}

export interface Scene {
  readonly beads: readonly SceneBead[]
  /** The stone's outline, if one lies in the piece. */
  readonly stone: readonly { readonly x: Mm; readonly y: Mm }[] | undefined
}

/** The wall begins to lean in this far up the stone's edge, and of what lies beyond so much goes inward. */
const leansFrom = 0.15
const inwardShare = 0.9

export function sceneOf(reckoned: Reckoned): Scene {
  const { work, roles, letterOf } = reckoned
  const stone = placedStone(reckoned)
  const beadOfRole = (index: number): Bead => {
    const role = roles.get(letterOf(index))
    if (role?.type !== 'bead') throw new RangeError(`Role ${index} is not a bead.`)
    return role.bead
  }
  const shape = stone?.outline ?? ringShape(work, beadOfRole)
  const outline = outlineOf(shape)
  const heights = rowHeights(work, beadOfRole)
  const halfWall = stone ? stone.heightMm / 2 : undefined
  const beads: SceneBead[] = []
  for (let bead = 0; bead < work.beads; bead++) {
    const { lengthMm, acrossMm, contact } = beadOfRole(work.role(bead))
    const seat = work.seat(bead)
    const place =
      seat.base >= 0
        ? onLoop(
            seat.turn,
            (seat.row + 1) * lengthMm,
            beads[seat.base] as SceneBead,
            outline(work.seat(seat.base).turn),
          )
        : seat.base === standing
          ? onRay(seat.turn, seat.row, lengthMm, outline)
          : onWall(seat.turn, heights.get(seat.row) ?? 0, halfWall, acrossMm, outline)
    beads.push({
      bead,
      role: letterOf(work.role(bead)),
      statement: work.statementOfBead(bead),
      ...place,
      lengthMm,
      acrossMm,
      contact,
    })
  }
  const upright = shape.shape === 'round' || shape.shape === 'girth' ? loopUp(beads, work) : beads
  return {
    beads: upright,
    stone: stone && Array.from({ length: 144 }, (_, i) => outline(i / 144)).map(({ x, y }) => ({ x, y })),
  }
}

/** A round piece has no top of its own: it is turned so that its first loop is uppermost, as it will hang. */
function loopUp(beads: readonly SceneBead[], work: Work): readonly SceneBead[] {
  const hung = beads.find(({ bead }) => work.seat(bead).base >= 0)
  const base = hung && beads[work.seat(hung.bead).base]
  if (!base) return beads
  const by = Math.PI / 2 - Math.atan2(base.y, base.x)
  const [cos, sin] = [Math.cos(by), Math.sin(by)]
  return beads.map((bead) => ({
    ...bead,
    x: bead.x * cos - bead.y * sin,
    y: bead.x * sin + bead.y * cos,
    angle: bead.angle + by,
  }))
}

function placedStone({ report }: Reckoned): Stone | undefined {
  return report.stones.find((stone) => stone.each > 0)?.stone
}

/** Without a stone the ring lies on its own circle. */
function ringShape(work: Work, beadOfRole: (index: number) => Bead): StoneShape {
  let girth = 0
  const first = work.passes > 0 ? work.statementAt(0) : -1
  for (let pass = 0; pass < work.passes && work.statementAt(pass) === first; pass++) {
    if (work.isNew(pass)) girth += beadOfRole(work.role(beadOf(work.holeAt(pass)))).lengthMm
  }
  return { shape: 'girth', girth: Math.max(girth, 1) }
}

/** How far along the wall each row lies from the middle of the ring: half the widths of the rows between. */
function rowHeights(work: Work, beadOfRole: (index: number) => Bead): Map<number, Mm> {
  const across = new Map<number, { sum: number; count: number }>()
  for (let bead = 0; bead < work.beads; bead++) {
    const { row, base } = work.seat(bead)
    if (base !== -1) continue
    const tally = across.get(row) ?? { sum: 0, count: 0 }
    tally.sum += beadOfRole(work.role(bead)).acrossMm
    tally.count++
    across.set(row, tally)
  }
  const mean = (row: number) => {
    const tally = across.get(row)
    return tally ? tally.sum / tally.count : 0
  }
  const heights = new Map<number, Mm>()
  for (const sign of [1, -1]) {
    let height = 0
    let before: number | undefined
    const rows = [...across.keys()].filter((row) => row * sign >= 0).sort((a, b) => Math.abs(a) - Math.abs(b))
    for (const row of rows) {
      height +=
        before === undefined
          ? (Math.abs(row) * mean(row)) / 2
          : ((Math.abs(row - before) / 2) * (mean(row) + mean(before))) / 2
      heights.set(row, sign * height)
      before = row
    }
  }
  return heights
}

type Place = Pick<SceneBead, 'x' | 'y' | 'z' | 'angle'>

/** Round a stone rows climb its wall and lean in over it; without one the work is laid flat, the front rows outward. */
function onWall(turn: number, height: Mm, halfWall: Mm | undefined, acrossMm: Mm, outline: Outline): Place {
  const { x, y, nx, ny } = outline(turn)
  const over = halfWall === undefined ? 0 : Math.max(0, Math.abs(height) - halfWall * leansFrom)
  const offset = halfWall === undefined ? height : acrossMm / 2 - over * inwardShare
  return { x: x + nx * offset, y: y + ny * offset, z: height, angle: Math.atan2(-nx, ny) }
}

/** A bead that stands with its hole pointing away from the core. */
function onRay(turn: number, row: number, lengthMm: Mm, outline: Outline): Place {
  const { x, y, nx, ny } = outline(turn)
  const offset = (row + 0.5) * lengthMm * 1.08
  return { x: x + nx * offset, y: y + ny * offset, z: 0.01, angle: Math.atan2(ny, nx) }
}

function onLoop(turn: number, girth: Mm, base: SceneBead, edge: { nx: number; ny: number }): Place {
  const radius = girth / (2 * Math.PI)
  const around = 2 * Math.PI * turn
  const [tx, ty] = [edge.ny, -edge.nx]
  const out = radius * (1 - Math.cos(around)) + base.acrossMm * 0.3
  const along = radius * Math.sin(around)
  return {
    x: base.x + edge.nx * out + tx * along,
    y: base.y + edge.ny * out + ty * along,
    z: base.z + 0.01,
    angle: Math.atan2(edge.ny, edge.nx) + around - Math.PI / 2,
  }
}
