import { type Extension, RangeSet, StateEffect, StateField } from '@codemirror/state'
import { GutterMarker, gutter } from '@codemirror/view'
import { trim } from '@tessellum/core/measure/units'
import type { StatementReport } from '@tessellum/core/report/report'
import type { SpokenUnits } from '@tessellum/core/stock/spoken-units'

/** What each line does, in a column to the right of the text. */
export const setFigures = StateEffect.define<{
  statements: readonly StatementReport[]
  old: boolean
  units: Pick<SpokenUnits, 'thread'>
}>()

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
    row.className = this.old ? 'line-figures old' : 'line-figures'
    for (const [name, text] of [
      ['stitches', this.stitches],
      ['added', this.added],
      ['thread', this.thread],
    ] as const) {
      const cell = document.createElement('span')
      cell.className = name
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
        statements
          .filter(
            ({ line, added, threadMm, action }) =>
              line <= doc.lines && (threadMm > 0 || Object.keys(added).length > 0 || action.type === 'let'),
          )
          .map(({ line, stitches, added, threadMm, action }) => {
            const beads = Object.entries(added)
              .map(([role, count]) => `+${count} ${role}`)
              .join(' ')
            const value = action.type === 'let' ? `= ${trim(action.amount, 2)}${action.unit === 'mm' ? ' mm' : ''}` : ''
            return new LineFigures(
              stitches ? `${stitches} st` : '',
              value || beads,
              threadMm ? units.thread(threadMm) : '',
              old,
            ).range(doc.line(line).from)
          }),
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
