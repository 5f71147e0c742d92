import type { Scene } from '@tessellum/core/drawing/scene'
import { type Face, faces } from '@tessellum/core/drawing/view'
import { type KeyboardEvent, type MouseEvent, type ReactNode, useEffect, useReducer, useRef, useState } from 'react'
import { DrawnStage } from './drawn-stage'
import { hasGraphicsCard } from './graphics-card'
import { canPaintInWorker, paintedHere, paintedInWorker } from './painting'
import styles from './piece.module.css'
import type { BeadLook, Dress, Eye, PieceStage } from './stage-kind'
import type { Lying, Moving } from './use-formed'

interface PieceProps {
  readonly scene: Scene
  /** While it settles. */
  readonly moving?: Moving
  /** How it lies at a step of the way, where that is not as it lies in the end. */
  readonly lying?: Lying | undefined
  /** By role; "stone" for the stone. */
  readonly dress: Readonly<Record<string, Dress>>
  readonly face: Face
  readonly onFace: (face: Face) => void
  readonly threadShown: boolean
  readonly onThread: (shown: boolean) => void
  /** How each bead is shown, and the passes that are picked out. */
  readonly looks?: ((bead: number) => BeadLook) | undefined
  readonly passes?: readonly [number, number] | undefined
  /** The piece as it is when this line is done: a stone is not there before it is laid in. */
  readonly upTo?: number | undefined
  /** @param further with Shift: from the bead before to this one */
  readonly onBead?: (statement: number, bead: number, further: boolean) => void
  /** Takes clicks on beads instead, with where in the canvas they were. */
  readonly onTouch?:
    | ((bead: number, at: readonly [x: number, y: number], event: MouseEvent, eye: Eye, lying: Lying) => void)
    | undefined
  /** Room left round the piece, mm. */
  readonly room?: number | undefined
  /** Drawn over the piece, and again whenever it is seen otherwise. */
  readonly over?: ((eye: Eye, lying: Lying) => ReactNode) | undefined
  readonly label: string
}

const all = () => 'plain' as const

/** In the round, or drawn: by a worker or, where that fails, by the page. */
type Way = 'round' | 'by worker' | 'by page'

const drawnWay = (): Way => (canPaintInWorker() ? 'by worker' : 'by page')

/** Found out with the first piece. Once one way has been too slow here or failed, every piece is shown the next way. */
let wayHere: Way | undefined

/** The piece, to be turned and zoomed: in the round, or drawn where that is too slow or not to be had. */
export function Piece({
  scene,
  moving,
  lying,
  dress,
  face,
  onFace,
  threadShown,
  onThread,
  looks = all,
  passes,
  upTo,
  onBead,
  onTouch,
  over,
  room = 0,
  label,
}: PieceProps) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [stage, setStage] = useState<PieceStage>()
  const [way, setWay] = useState(() => {
    wayHere ??= hasGraphicsCard() ? 'round' : drawnWay()
    return wayHere
  })
  const told = useRef(onBead)
  told.current = onBead
  const pressedAt = useRef({ x: 0, y: 0 })
  const [, seen] = useReducer((times: number) => times + 1, 0)
  const lies = useRef<Lying>(scene)

  useEffect(() => {
    let made: PieceStage | undefined
    let gone = false
    let watch: ResizeObserver | undefined
    const goOn = (next: Way) => {
      wayHere = next
      if (!gone) setWay(next)
    }
    const draw = () => goOn(drawnWay())
    const begin = (make: (place: HTMLCanvasElement) => PieceStage) => {
      const place = canvas.current
      if (gone || !place) return
      made = make(place)
      watch = new ResizeObserver(([entry]) => {
        if (entry && entry.contentRect.width > 0) made?.resize(entry.contentRect.width, entry.contentRect.height)
      })
      watch.observe(place)
      setStage(made)
    }
    if (way === 'round')
      void import('./stage').then(({ Stage }) => begin((place) => new Stage(place, draw))).catch(draw)
    else if (way === 'by worker')
      begin(
        (place) =>
          new DrawnStage(
            place,
            paintedInWorker(place, () => goOn('by page')),
          ),
      )
    else begin((place) => new DrawnStage(place, paintedHere(place)))
    return () => {
      gone = true
      watch?.disconnect()
      made?.dispose()
      setStage(undefined)
    }
  }, [way])

  const shown = useRef<{ stage: PieceStage; scene: Scene }>(undefined)
  useEffect(() => {
    if (!stage) return
    if (shown.current?.scene === scene && shown.current.stage === stage) stage.dressed(dress)
    else stage.show(scene, dress)
    shown.current = { stage, scene }
  }, [stage, scene, dress])
  useEffect(
    () =>
      stage &&
      moving?.subscribe((moved) => {
        lies.current = moved
        stage.move(moved)
      }),
    [stage, moving],
  )
  useEffect(() => {
    lies.current = lying ?? scene
    stage?.move(lies.current)
  }, [stage, scene, lying])
  const isOver = over !== undefined
  useEffect(() => {
    if (stage) stage.onSeen = isOver ? seen : undefined
  }, [stage, isOver])
  // After the scene it is a look at has been set.
  useEffect(() => stage?.look(looks, passes, upTo), [stage, looks, passes, upTo])
  useEffect(() => stage?.withThread(threadShown), [stage, threadShown])
  useEffect(() => stage?.face(face), [stage, face])
  useEffect(() => stage?.leaveRoom(room), [stage, room])

  const turns: Readonly<Record<string, readonly [right: number, up: number]>> = {
    ArrowLeft: [-0.15, 0],
    ArrowRight: [0.15, 0],
    ArrowUp: [0, -0.15],
    ArrowDown: [0, 0.15],
  }
  /** @returns whether the key means anything here */
  const act = (key: string): boolean => {
    const turn = turns[key]
    const side = faces.find((each) => each.charAt(0) === key)
    if (turn) stage?.turn(...turn)
    else if (key === '+' || key === '=') stage?.zoom(1.2)
    else if (key === '-') stage?.zoom(1 / 1.2)
    else if (key === 't') onThread(!threadShown)
    else if (side) {
      // The same side again sets the piece straight after it has been turned.
      if (side === face) stage?.face(face)
      onFace(side)
    } else return false
    return true
  }
  const press = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.altKey || event.metaKey || !act(event.key)) return
    event.preventDefault()
    event.stopPropagation()
  }
  // Another piece has come, and where it lies is not told yet.
  const lain = lies.current.poses.length === scene.poses.length ? lies.current : scene
  const drawnOver = stage && over?.(stage.eye, lain)
  return (
    <>
      <canvas
        key={way}
        ref={canvas}
        className={styles.stage}
        tabIndex={0}
        role="img"
        aria-label={`${label}. Arrows turn it, plus and minus zoom, F, B and S show front, back and side, T hides the thread.`}
        onKeyDown={press}
        onPointerDown={(event) => {
          pressedAt.current = { x: event.clientX, y: event.clientY }
        }}
        onClick={(event) => {
          // Turning the piece is not choosing a bead.
          if (Math.hypot(event.clientX - pressedAt.current.x, event.clientY - pressedAt.current.y) > 4) return
          const box = event.currentTarget.getBoundingClientRect()
          const bead = stage?.beadAt((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height)
          if (bead === undefined || !stage) return
          if (onTouch) return onTouch(bead, [event.clientX - box.left, event.clientY - box.top], event, stage.eye, lain)
          const found = scene.beads[bead]?.statement
          if (found !== undefined) told.current?.(found, bead, event.shiftKey)
        }}
      />
      {drawnOver}
    </>
  )
}
