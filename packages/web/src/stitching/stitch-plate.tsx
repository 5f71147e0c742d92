import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { Eye } from '../piece/stage-kind'
import type { Lying } from '../piece/use-formed'
import styles from './stitching.module.css'
import type { StitchTools } from './use-stitch-tools'

interface StitchPlateProps {
  readonly tools: StitchTools
  /** The piece, with what is drawn over it; undefined while there is none. */
  readonly piece: ((over: (eye: Eye, lying: Lying) => ReactNode) => ReactNode) | undefined
}

/** The plate that is stitched on: it has the keys as soon as it is there. */
export function StitchPlate({ tools, piece }: StitchPlateProps) {
  const { place } = tools
  const seen = useRef<{ readonly eye: Eye; readonly lying: Lying }>(undefined)
  const [size, setSize] = useState<readonly [number, number]>([400, 400])
  useEffect(() => {
    const at = place.current
    if (!at) return
    at.focus()
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize([entry.contentRect.width, entry.contentRect.height])
    })
    watch.observe(at)
    return () => watch.disconnect()
  }, [place])
  return (
    <div
      ref={place}
      className={styles.place}
      role="application"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: an application has keys of its own
      tabIndex={0}
      aria-label="The piece, to stitch on. Letters pick up beads, arrows go from bead to bead, Space passes through one, Enter ends the line."
      onKeyDownCapture={(event) => tools.onKey(event, seen.current?.eye, seen.current?.lying)}
    >
      {piece
        ? piece((eye, lying) => {
            seen.current = { eye, lying }
            return tools.over(eye, lying, eye.size)
          })
        : tools.over(undefined, undefined, size)}
    </div>
  )
}
