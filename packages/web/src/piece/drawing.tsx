import type { Scene } from '@tessellum/core/drawing/scene'
import { type Face, viewOf } from '@tessellum/core/drawing/view'
import { useMemo } from 'react'
import { Loading } from '../frame/loading'
import { FlatPiece } from './flat-piece'

interface DrawingProps {
  readonly scene: Scene | undefined
  readonly colours: Readonly<Record<string, string>>
  readonly face?: Face
  readonly statement?: number
  readonly label: string
}

/** A settled piece as a small drawing. */
export function Drawing({ scene, colours, face = 'front', statement, label }: DrawingProps) {
  const view = useMemo(
    () => scene && viewOf(scene, { face, ...(statement === undefined ? {} : { statement }) }),
    [scene, face, statement],
  )
  return view ? <FlatPiece view={view} colours={colours} label={label} /> : <Loading what="Drawing" />
}
