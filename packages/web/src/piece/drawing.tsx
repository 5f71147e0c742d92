import type { Scene } from '@tessellum/core/drawing/scene'
import { type Face, type View, viewOf } from '@tessellum/core/drawing/view'
import { useEffect, useMemo } from 'react'
import { Loading } from '../frame/loading'
import { FlatPiece } from './flat-piece'

interface DrawingProps {
  readonly scene: Scene | undefined
  readonly colours: Readonly<Record<string, string>>
  readonly finishes?: Readonly<Record<string, string>>
  readonly face?: Face
  readonly statement?: number
  readonly label: string
  /** Drawn to the scale at which so much fits, mm, so that several can be compared. */
  readonly within?: readonly [width: number, height: number]
  readonly onExtent?: (width: number, height: number) => void
}

/** A settled piece as a small drawing. */
export function Drawing({
  scene,
  colours,
  finishes,
  face = 'front',
  statement,
  label,
  within,
  onExtent,
}: DrawingProps) {
  const view = useMemo(
    () => scene && viewOf(scene, { face, ...(statement === undefined ? {} : { statement }) }),
    [scene, face, statement],
  )
  useEffect(() => {
    if (view) onExtent?.(view.box[2], view.box[3])
  }, [view, onExtent])
  const scaled = useMemo(() => (view && within ? { ...view, box: spread(view.box, within) } : view), [view, within])
  return scaled ? (
    <FlatPiece view={scaled} colours={colours} {...(finishes ? { finishes } : {})} label={label} />
  ) : (
    <Loading what="Drawing" />
  )
}

/** The same middle, in a frame of at least this size. */
function spread([x, y, width, height]: View['box'], [wide, high]: readonly [number, number]): View['box'] {
  const [w, h] = [Math.max(width, wide), Math.max(height, high)]
  return [x - (w - width) / 2, y - (h - height) / 2, w, h]
}
