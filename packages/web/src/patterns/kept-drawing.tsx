import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import type { ReactNode } from 'react'
import { FlatPiece } from '../piece/flat-piece'
import { read } from '../shop/queries'
import { useChosen } from './use-chosen'

interface KeptDrawingProps {
  readonly patternId: number
  readonly title: string
  /** Undefined where the shop has none. */
  readonly digest: string | undefined
  readonly roles: readonly string[]
  readonly size: string
  /** The pattern's first where it is not told, or is not there any more. */
  readonly colourwayId?: number
  /** In its place, where there is none. */
  readonly none?: ReactNode
}

/** A pattern as the shop has drawn it, in a colourway: nothing is computed here. */
export function KeptDrawing({ patternId, title, digest, roles, size, colourwayId, none }: KeptDrawingProps) {
  const { data: items } = useQuery(read.items)
  const { data: colourways } = useQuery(read.colourways(patternId))
  const { data: view } = useQuery({
    ...read.drawing(patternId, digest ?? ''),
    enabled: digest !== undefined,
    // The drawing before stands until there is another.
    placeholderData: keepPreviousData,
  })
  const chosen = useChosen(colourways?.find(({ id }) => id === colourwayId) ?? colourways?.[0], size, items)
  return view ? (
    <FlatPiece view={view} colours={{ ...roleColours(roles), ...chosen.colours }} label={`${title}, drawn`} />
  ) : (
    none
  )
}
