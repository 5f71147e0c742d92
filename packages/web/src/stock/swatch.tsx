import type { ItemIdentity } from '@tessellum/contract/stock'
import { finishLook } from '@tessellum/core/colour/finish'
import { useId } from 'react'
import { beadShape } from './bead-shape'
import styles from './swatch.module.css'

interface SwatchProps {
  readonly item: Pick<ItemIdentity, 'kind' | 'category' | 'colour' | 'finish'> & { readonly size?: string }
  readonly size?: number
}

const ink = '#22302b'

/** An item drawn as what it is, in its colour; the name always stands beside it. */
export function Swatch({ item, size = 26 }: SwatchProps) {
  const { category, kind, colour } = item
  return (
    <svg className={styles.swatch} width={size} height={size} viewBox="-13 -13 26 26" aria-hidden="true">
      {category === 'thread' ? (
        <>
          <rect x="-8" y="-10" width="16" height="20" rx="2" fill="#d9d1be" stroke={ink} strokeWidth="0.8" />
          <rect x="-9.5" y="-6.5" width="19" height="13" rx="2" fill={colour} stroke={ink} strokeWidth="0.8" />
          <path d="M-9 -3.4h18M-9 0h18M-9 3.4h18" stroke={ink} strokeOpacity="0.35" strokeWidth="0.7" />
        </>
      ) : category === 'stone' ? (
        <>
          <path
            d={kind.startsWith('square') ? 'M-8 -10h16l2 2v16l-2 2h-16l-2-2v-16z' : 'M0 -11a11 11 0 1 0 .01 0z'}
            fill={colour}
            stroke={ink}
            strokeWidth="0.8"
          />
          <path d="M-5 -5l5-4 5 4-1 9-4 3-4-3z" fill="#fff" fillOpacity="0.22" />
        </>
      ) : category === 'kit' ? (
        <>
          <path d="M-8 -6h16l1 16a1.5 1.5 0 0 1-1.5 1.5h-15a1.5 1.5 0 0 1-1.5-1.5z" fill="#f3ecdb" stroke={ink} />
          <path d="M-8.2 -3h16.4" stroke={ink} strokeWidth="0.8" strokeDasharray="2 1.4" />
          <circle cx="0" cy="4.5" r="4.2" fill={colour} stroke={ink} strokeWidth="0.8" />
        </>
      ) : (
        <Bead item={item} />
      )}
    </svg>
  )
}

function Bead({ item: { kind, size = '', colour, finish } }: Pick<SwatchProps, 'item'>) {
  const light = useId()
  const { shine } = finishLook(finish)
  const { outline, lines, mouths } = beadShape(kind, size)
  return (
    <>
      <linearGradient id={light} x1="0" y1="0" x2="0" y2="1">
        <stop offset="0" stopColor={ink} stopOpacity="0.2" />
        <stop offset="0.3" stopColor="#fff" stopOpacity={shine} />
        <stop offset="0.5" stopColor="#fff" stopOpacity="0" />
        <stop offset="1" stopColor={ink} stopOpacity="0.32" />
      </linearGradient>
      <path d={outline} fill={colour} />
      <path d={outline} fill={`url(#${light})`} stroke={ink} strokeWidth="0.9" strokeLinejoin="round" />
      <path d={lines} fill="none" stroke={ink} strokeOpacity="0.55" strokeWidth="0.6" />
      {mouths.map(({ x, y, rx, ry }) => (
        <ellipse key={`${x} ${y}`} cx={x} cy={y} rx={rx} ry={ry} fill={ink} fillOpacity="0.75" />
      ))}
    </>
  )
}
