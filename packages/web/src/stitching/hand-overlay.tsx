import type { Scene } from '@tessellum/core/drawing/scene'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { beadOf } from '@tessellum/core/stitch/hole'
import { useMemo } from 'react'
import type { Dress, Eye } from '../piece/stage-kind'
import type { Lying } from '../piece/use-formed'
import { type HandLaid, layHand } from './hand-layout'
import { lastExit, middleOf, mouthsOf } from './pointing'
import styles from './stitching.module.css'

interface HandOverlayProps {
  /** Undefined where there is no piece yet: the first beads of a pattern. */
  readonly eye: Eye | undefined
  readonly scene: Scene | undefined
  readonly lying: Lying | undefined
  readonly size: readonly [width: number, height: number]
  readonly passes: readonly HandPass[]
  /** What is proposed, with what the hand has made at its beginning. */
  readonly ghost: readonly HandPass[] | undefined
  /** Lengths along and across the hole, mm. */
  readonly measures: Readonly<Record<string, { readonly lengthMm: number; readonly acrossMm: number }>>
  readonly dress: Readonly<Record<string, Dress>>
  /** The bead that the keyboard is at. */
  readonly focus: number | undefined
  /** The hole of that bead that is meant. */
  readonly focusBore: 0 | 1
  readonly onOwn: (bead: number, otherWay: boolean) => void
}

/** More beads than this of a proposal are not drawn one by one. */
const maxGhost = 160
/** Without a piece: CSS pixels a mm. */
const plainScale = 16

/** The needle, what is on it, and what is proposed, over the piece. */
export function HandOverlay({
  eye,
  scene,
  lying,
  size: [width, height],
  passes,
  ghost,
  measures,
  dress,
  focus,
  focusBore,
  onOwn,
}: HandOverlayProps) {
  const drawn = useMemo(() => scene && lying && { ...scene, ...lying }, [scene, lying])
  const scale = Math.max(4, eye?.scale ?? plainScale)
  const beads = scene?.beads.length ?? 0
  const lay = (made: readonly HandPass[]): HandLaid => {
    const exit = drawn && lastExit(drawn, [], drawn.passes.at(-1)?.hole)
    return layHand({
      passes: made,
      beads,
      from: exit && eye?.project(exit),
      ends: (h) => {
        if (!drawn || !eye) return [middle, middle]
        const [first, second] = mouthsOf(drawn, beadOf(h), ((h >> 1) & 1) as 0 | 1)
        const [a, b] = [eye.project(first), eye.project(second)]
        return (h & 1) === 0 ? [a, b] : [b, a]
      },
      sizeOf: (role) => (measures[role]?.lengthMm ?? 1.5) * scale,
      middle,
    })
  }
  const middle: readonly [number, number] = [width / 2, height / 2]
  const own = lay(passes)
  const proposed = ghost && lay(ghost.slice(0, endOfGhost(ghost, passes)))
  const at = focus !== undefined ? placeOf(focus) : undefined

  function placeOf(bead: number): readonly [number, number] | undefined {
    if (bead >= beads) return own.beads.find((each) => each.bead === bead)?.at
    return drawn && eye && middleOf(drawn, bead, eye, focusBore)
  }

  return (
    <svg className={styles.over} viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
      {proposed && (
        <g className={styles.ghost}>
          <Thread laid={proposed} />
          {proposed.beads
            .filter(({ bead }) => bead >= beads + own.beads.length)
            .map((each) => (
              <Bead key={each.bead} {...each} {...inPixels(each.role)} colour={dress[each.role]?.colour} />
            ))}
        </g>
      )}
      {passes.length > 0 && <Thread laid={own} />}
      {own.beads.map((each) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the keyboard goes from bead to bead by arrows
        <g
          key={each.bead}
          className={styles.own}
          data-own={each.bead - beads + 1}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={(event) => onOwn(each.bead, event.shiftKey)}
        >
          <Bead {...each} {...inPixels(each.role)} colour={dress[each.role]?.colour} letter />
        </g>
      ))}
      {at && <circle className={styles.focus} cx={at[0]} cy={at[1]} r={Math.max(9, scale * 0.9)} />}
      {own.needle && <Needle {...own.needle} />}
    </svg>
  )

  function inPixels(role: string) {
    const { lengthMm = 1.5, acrossMm = 1.5 } = measures[role] ?? {}
    return { long: lengthMm * scale * 0.94, across: acrossMm * scale * 0.94 }
  }
}

function endOfGhost(ghost: readonly HandPass[], passes: readonly HandPass[]): number {
  let picked = 0
  for (const [i, pass] of ghost.entries()) {
    if (i >= passes.length && pass.type === 'pick' && ++picked > maxGhost) return i
  }
  return ghost.length
}

const Thread = ({ laid }: { laid: HandLaid }) => (
  <polyline className={styles.thread} points={laid.thread.map(([x, y]) => `${x},${y}`).join(' ')} />
)

function Bead({
  role,
  at: [x, y],
  turn,
  long,
  across,
  colour = '#fffdf7',
  letter = false,
}: {
  role: string
  at: readonly [number, number]
  turn: number
  long: number
  across: number
  colour?: string | undefined
  letter?: boolean
}) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect
        x={-long / 2}
        y={-across / 2}
        width={long}
        height={across}
        rx={Math.min(long, across) * 0.32}
        transform={`rotate(${(turn * 180) / Math.PI})`}
        fill={colour}
      />
      {letter && Math.min(long, across) > 11 && <text className={styles.letter}>{role}</text>}
    </g>
  )
}

/** Its point ahead, its eye behind. */
const Needle = ({ at: [x, y], turn }: { at: readonly [number, number]; turn: number }) => (
  <g className={styles.needle} transform={`translate(${x} ${y}) rotate(${(turn * 180) / Math.PI})`}>
    <path d="M 4 -2.2 L 34 -1.6 L 46 0 L 34 1.6 L 4 2.2 Q 0 0 4 -2.2 Z" />
    <path className={styles.needleEye} d="M 7 0 L 15 0" />
  </g>
)
