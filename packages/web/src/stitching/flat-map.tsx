import type { RolledOut } from '@tessellum/core/hand/rolled-out'
import type { Dress } from '../piece/stage-kind'
import styles from './stitching.module.css'

/** Rounds as rows, rolled out; each bead a button for who paints with the keyboard as well. */
export function FlatMap({
  flat: { beads, rows, widest },
  dress,
  onBead,
}: {
  flat: RolledOut
  dress: Readonly<Record<string, Dress>>
  onBead: (bead: number) => void
}) {
  const [wide, high] = [10, 9]
  const width = widest * wide * 1.02
  const height = rows * high
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be drawn in
    <svg
      className={styles.flat}
      viewBox={`${-wide} -2 ${width + 2 * wide} ${height + 4}`}
      role="group"
      aria-label="The piece rolled out flat, each round a row"
    >
      {beads.map(({ bead, role, x, row }) => (
        // biome-ignore lint/a11y/useSemanticElements: a button cannot stand in a drawing
        <rect
          key={bead}
          x={x * width - wide * 0.47}
          y={height - (row + 1) * high + 0.3}
          width={wide * 0.94}
          height={high * 0.94}
          rx={2}
          fill={dress[role]?.colour ?? '#fffdf7'}
          role="button"
          tabIndex={beads.length > maxByKey ? -1 : 0}
          aria-label={`${role}, row ${row + 1}`}
          onClick={() => onBead(bead)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return
            event.preventDefault()
            onBead(bead)
          }}
        />
      ))}
    </svg>
  )
}

/** Nobody goes through more beads than this with the Tab key. */
const maxByKey = 600
