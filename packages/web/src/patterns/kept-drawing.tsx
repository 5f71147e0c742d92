import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { FlatPiece } from '../piece/flat-piece'
import { read } from '../shop/queries'

interface KeptDrawingProps {
  readonly patternId: number
  readonly title: string
  /** Undefined where the shop has none. */
  readonly digest: string | undefined
  /** By role. */
  readonly colours: Readonly<Record<string, string>>
  /** In its place, where there is none. */
  readonly none?: ReactNode
}

/** A pattern as the shop has drawn it: nothing is computed here. */
export function KeptDrawing({ patternId, title, digest, colours, none }: KeptDrawingProps) {
  const { data: view } = useQuery({
    ...read.drawing(patternId, digest ?? ''),
    enabled: digest !== undefined,
    // The drawing before stands until there is another.
    placeholderData: keepPreviousData,
  })
  return view ? <FlatPiece view={view} colours={colours} label={`${title}, drawn`} /> : none
}
