import { finishLook } from '@tessellum/core/colour/finish'
import { earlierLook, ink, lineLook, stateLook, wayColour } from '@tessellum/core/drawing/svg'
import type { View, ViewBead, ViewBody, ViewShape } from '@tessellum/core/drawing/view'
import { memo } from 'react'

interface FlatPieceProps {
  readonly view: View
  /** By role. */
  readonly colours: Readonly<Record<string, string>>
  /** By role, in a maker's words; plain where a role is absent. */
  readonly finishes?: Readonly<Record<string, string>>
  readonly label: string
}

/** The piece as a vector drawing: on paper, on cards, and wherever it cannot be turned. */
export const FlatPiece = memo(function FlatPiece({ view, colours, finishes = plain, label }: FlatPieceProps) {
  const { way } = view
  return (
    <svg viewBox={view.box.join(' ')} role="img" aria-label={label}>
      {view.shapes.map((shape, i) => (
        <Shape key={i} shape={shape} bodies={view.bodies} colours={colours} finishes={finishes} />
      ))}
      {way && (
        <>
          <path d={way.path} fill="none" stroke={wayColour} strokeWidth="0.2" strokeLinejoin="round" />
          <circle cx={way.from[0]} cy={way.from[1]} r="0.45" fill="#fff" stroke={wayColour} strokeWidth="0.18" />
          <circle cx={way.to[0]} cy={way.to[1]} r="0.45" fill={wayColour} stroke="#fff" strokeWidth="0.1" />
        </>
      )}
    </svg>
  )
})

const plain: Readonly<Record<string, string>> = {}

type ShapeProps = Required<Pick<FlatPieceProps, 'colours' | 'finishes'>> & Pick<View, 'bodies'>

function Shape({ shape, ...props }: ShapeProps & { shape: ViewShape }) {
  switch (shape.type) {
    case 'bead':
      return <Bead shape={shape} {...props} />
    case 'stone':
      return (
        <>
          <path d={shape.path} fill={props.colours.stone ?? '#dfe3df'} stroke={ink} strokeWidth="0.12" />
          <path d={shape.lines} fill="none" stroke={ink} strokeWidth={lineLook.edge} strokeOpacity={lineLook.opacity} />
        </>
      )
    case 'wire':
      return <path d={shape.path} fill="none" stroke="#9aa09c" strokeWidth={shape.width} />
    case 'earlier':
      return (
        <path
          d={shape.path}
          fill={earlierLook.fill}
          fillOpacity="0.6"
          stroke={ink}
          strokeWidth={earlierLook.edge}
          strokeDasharray={earlierLook.dash}
        />
      )
    case 'thread':
      return <path d={shape.path} stroke="#6d6a60" strokeWidth="0.14" strokeLinecap="round" />
  }
}

function Bead({ shape, bodies, colours, finishes }: ShapeProps & { shape: ViewBead }) {
  const { state } = shape
  const { outline, lines, mouths, length, across } = bodies[shape.body] as ViewBody
  const look = state ? stateLook[state] : undefined
  const { shine, cover, metal } = finishLook(finishes[shape.role] ?? '')
  const smooth = mouths.length === 0 && length > 0
  return (
    <g transform={`translate(${shape.cx} ${shape.cy}) rotate(${shape.turn})`}>
      <path
        d={outline}
        fill={look?.fill ?? colours[shape.role] ?? '#fffdf7'}
        fillOpacity={cover}
        stroke={ink}
        strokeWidth={look?.edge ?? 0.11}
        strokeLinejoin="round"
      />
      {smooth && (
        <ellipse
          cx={-length * 0.1}
          cy={-across * 0.2}
          rx={length * 0.18}
          ry={across * 0.07}
          fill="#fff"
          fillOpacity={shine}
        />
      )}
      {smooth && metal && (
        <ellipse cy={across * 0.2} rx={length * 0.24} ry={across * 0.07} fill={ink} fillOpacity="0.22" />
      )}
      {lines && (
        <path d={lines} fill="none" stroke={ink} strokeWidth={lineLook.edge} strokeOpacity={lineLook.opacity} />
      )}
      {mouths.map(({ x, y, rx, ry }) => (
        <ellipse key={`${x} ${y}`} cx={x} cy={y} rx={rx} ry={ry} fill={ink} fillOpacity="0.7" />
      ))}
      {state === 'passed' && <path d={`M${-length * 0.32} 0H${length * 0.32}`} stroke={ink} strokeWidth="0.18" />}
    </g>
  )
}
