import type { Item } from '@tessellum/contract/stock'
import { finishLook } from '@tessellum/core/colour/finish'
import styles from './swatch.module.css'

/** An item drawn as what it is, in its colour; the name always stands beside it. */
export function Swatch({
  item,
  size = 26,
}: {
  item: Pick<Item, 'kind' | 'category' | 'colour' | 'finish'>
  size?: number
}) {
  const { category, kind, colour, finish } = item
  const { shine } = finishLook(finish)
  return (
    <svg className={styles.swatch} width={size} height={size} viewBox="0 0 26 26" aria-hidden="true">
      {category === 'thread' ? (
        <>
          <rect x="5" y="3" width="16" height="20" rx="2" fill="#d9d1be" stroke="#22302b" strokeWidth="0.8" />
          <rect x="3.5" y="6.5" width="19" height="13" rx="2" fill={colour} stroke="#22302b" strokeWidth="0.8" />
          <path d="M4 9.6h18M4 13h18M4 16.4h18" stroke="#22302b" strokeOpacity="0.35" strokeWidth="0.7" />
        </>
      ) : category === 'stone' ? (
        <>
          <path
            d={kind.startsWith('square') ? 'M5 3h16l2 2v16l-2 2H5l-2-2V5z' : 'M13 2a11 11 0 1 0 .01 0z'}
            fill={colour}
            stroke="#22302b"
            strokeWidth="0.8"
          />
          <path d="M8 8l5-4 5 4-1 9-4 3-4-3z" fill="#fff" fillOpacity="0.22" />
        </>
      ) : kind === 'cylinder' ? (
        <>
          <rect x="4" y="3" width="18" height="20" rx="4" fill={colour} stroke="#22302b" strokeWidth="0.9" />
          <rect x="7.2" y="4.5" width="3" height="17" rx="1.5" fill="#fff" fillOpacity={shine} />
        </>
      ) : (
        <>
          <ellipse cx="13" cy="13" rx="9" ry="10.5" fill={colour} stroke="#22302b" strokeWidth="0.9" />
          <ellipse cx="10" cy="9" rx="2.6" ry="3.6" fill="#fff" fillOpacity={shine} />
          <path d="M4.6 10.4v5.2M21.4 10.4v5.2" stroke="#22302b" strokeWidth="1.2" strokeLinecap="round" />
        </>
      )}
    </svg>
  )
}

/** A colour, where the kind of what has it is told beside it. */
export const ColourChip = ({ colour, size = 15 }: { colour: string; size?: number }) => (
  <svg className={styles.swatch} width={size} height={size} viewBox="0 0 15 15" aria-hidden="true">
    <rect x="0.5" y="0.5" width="14" height="14" rx="4" fill={colour} stroke="#22302b" />
  </svg>
)
