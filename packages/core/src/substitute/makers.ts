import { type Bead, beadName } from '../catalogue/bead'
import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import { type Consequence, consequenceOf } from './consequence'

/** What one maker's bead of the same kind and size does to a pattern. */
export interface MakerRow {
  readonly role: string
  readonly bead: Bead
  readonly consequence: Consequence
}

/**
 * Makers' "same size" beads differ, so that printed counts hold for one maker only: what changes with each other maker of each bead, one at
 * a time.
 *
 * @param records beads of the catalogue, with their makers
 */
export function makersTable(source: string, choices: Choices, records: readonly Bead[]): MakerRow[] {
  const before = evaluatePattern(source, choices).report
  return before.beads
    .filter(({ total }) => total > 0)
    .flatMap(({ role, bead }) => {
      const others = new Map<string, Bead>()
      for (const each of records) {
        if (beadName(each) !== beadName(bead) || each.maker === undefined || each.maker === bead.maker) continue
        others.set(each.maker, each)
      }
      return [...others.values()]
        .sort((a, b) => (a.maker ?? '').localeCompare(b.maker ?? ''))
        .map((other) => ({
          role,
          bead: other,
          consequence: consequenceOf(
            before,
            evaluatePattern(source, { ...choices, beads: { ...choices.beads, [role]: other } }).report,
          ),
        }))
    })
}
