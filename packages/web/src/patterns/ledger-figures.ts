import { type Extension, RangeSet, StateEffect, StateField } from '@codemirror/state'
import { GutterMarker, gutter } from '@codemirror/view'
import { trim } from '@tessellum/core/measure/units'
import type { StatementReport } from '@tessellum/core/report/report'
import type { SpokenUnits } from '@tessellum/core/stock/spoken-units'
import styles from './ledger.module.css'

/** What each line does, in a column to the right of the text. */
export const setFigures = StateEffect.define<{
  statements: readonly StatementReport[]
  old: boolean
  units: Pick<SpokenUnits, 'thread'>
}>()

/** What is told of each line that does something: stitches, beads added or the value it gives, and thread. */
export const figuresOf = (
  statements: readonly StatementReport[],
  lines: number,
  units: Pick<SpokenUnits, 'thread'>,
): { line: number; stitches: string; added: string; thread: string }[] =>
  statements
    // The text may have got shorter since it was evaluated.
    .filter(
      ({ line, added, threadMm, action }) =>
        line <= lines && (threadMm > 0 || Object.keys(added).length > 0 || action.type === 'let'),
    )
    .map(({ line, stitches, added, threadMm, action }) => ({
      line,
      stitches: stitches ? `${stitches} st` : '',
      added:
        action.type === 'let'
          ? `= ${trim(action.amount, 2)}${action.unit === 'mm' ? ' mm' : ''}`
          : Object.entries(added)
              .map(([role, count]) => `+${count} ${role}`)
              .join(' '),
      thread: threadMm ? units.thread(threadMm) : '',
    }))

class LineFigures extends GutterMarker {
  constructor(
    private readonly stitches: string,
    private readonly added: string,
    private readonly thread: string,
    private readonly old: boolean,
  ) {
    super()
  }

  override eq(other: LineFigures): boolean {
    return (
      this.stitches === other.stitches &&
      this.added === other.added &&
      this.thread === other.thread &&
      this.old === other.old
    )
  }

  override toDOM(): HTMLElement {
    const row = document.createElement('div')
    row.className = `${styles.lineFigures} ${this.old ? styles.old : ''}`
    for (const [name, text] of [
      ['stitches', this.stitches],
      ['added', this.added],
      ['thread', this.thread],
    ] as const) {
      const cell = document.createElement('span')
      cell.className = styles[name] ?? ''
      cell.textContent = text
      // A line that adds many kinds of bead is cut short; all of it is told on hovering, and in the strip below.
      if (text) cell.title = text
      row.append(cell)
    }
    return row
  }
}

const figures = StateField.define<RangeSet<GutterMarker>>({
  create: () => RangeSet.empty,
  update(set, transaction) {
    let next = set.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (!effect.is(setFigures)) continue
      const { doc } = transaction.state
      const { statements, old, units } = effect.value
      next = RangeSet.of(
        figuresOf(statements, doc.lines, units).map(({ line, stitches, added, thread }) =>
          new LineFigures(stitches, added, thread, old).range(doc.line(line).from),
        ),
        true,
      )
    }
    return next
  },
})

const widest = new LineFigures('888 st', '+888 A', '888.8 cm', false)

export const ledgerFigures: Extension = [
  figures,
  gutter({
    side: 'after',
    class: 'cm-figures',
    markers: (view) => view.state.field(figures),
    initialSpacer: () => widest,
  }),
]
