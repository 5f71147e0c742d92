import type { View } from '@tessellum/core/drawing/view'

interface PieceProps {
  readonly view: View
  /** By role. */
  readonly colours: Readonly<Record<string, string>>
  /** Beads of this statement are shown strong, the rest quiet. */
  readonly lit?: number | undefined
  readonly onBead?: (statement: number) => void
  readonly label: string
}

/** The work as it lies, drawn from its rails. */
export function Piece({ view, colours, lit, onBead, label }: PieceProps) {
  return (
    <svg viewBox={view.box.join(' ')} role="img" aria-label={label}>
      {view.shapes.map((shape) => {
        if (shape.type === 'stone')
          return (
            <path key="stone" d={shape.path} fill={colours.stone ?? '#dfe3df'} stroke="#22302b" strokeWidth="0.12" />
          )
        const state = lit === undefined ? '' : shape.statement === lit ? ' lit' : ' dim'
        const { length, across, corner } = shape
        return (
          // Beads are a shortcut for the mouse; the ledger's lines do the same from the keyboard.
          // biome-ignore lint/a11y/noStaticElementInteractions: see above
          <g
            key={shape.bead}
            className={`bead${state}`}
            transform={`translate(${shape.cx} ${shape.cy}) rotate(${shape.turn})`}
            onClick={onBead && (() => onBead(shape.statement))}
          >
            <rect
              x={-length / 2}
              y={-across / 2}
              width={length}
              height={across}
              rx={corner}
              fill={colours[shape.role] ?? '#fffdf7'}
              stroke="#22302b"
              strokeWidth={state === ' lit' ? 0.3 : 0.11}
            />
            <rect
              x={-length * 0.3}
              y={-across * 0.36}
              width={length * 0.6}
              height={across * 0.16}
              rx={across * 0.08}
              fill="#fff"
              fillOpacity="0.3"
            />
          </g>
        )
      })}
    </svg>
  )
}
