import { sayPercent } from '../../measure/units'
import { LineFault, type Span } from '../../notation/fault'
import { girth } from '../../sizing/girth'
import { easeOf, verdictWords } from '../../sizing/ring-fit'
import type { Technique } from '../technique'

/** `place S`: the stone goes in; the thread does nothing. */
export const placeTechnique: Technique<{ role: string; at: Span }> = {
  word: 'place',
  read(cursor) {
    const name = cursor.expect('Name', "a stone's letter", 'For example: place S.')
    return { role: name.text, at: name }
  },
  work({ role, at }, bench, span) {
    const stone = bench.stone(role, at)
    if (!stone) {
      throw new LineFault(
        at,
        bench.bead(role, at)
          ? `${role} is a bead; it is picked up, not placed.`
          : `There is no stone ${role} in this pattern.`,
        `Declare it: stone S round 14 mm, and place S.`,
      )
    }
    const rail = bench.rail('place', span)
    if (bench.ring) {
      const { lengthMm, acrossMm, beads } = bench.ring
      const { ease, verdict } = easeOf(lengthMm, girth(stone.outline), acrossMm)
      bench.fits.push({ stone: role, beads, ease, verdict })
      const message = `The ring of ${beads} round ${role}: ${sayPercent(ease)}, ${verdictWords[verdict]}.`
      const sits = verdict === 'snug' || verdict === 'loose'
      bench.remark(
        sits ? 'note' : 'warning',
        at,
        message,
        sits ? undefined : `Let the count follow the stone: ring ... with fit(${role}, A).`,
      )
    }
    if (bench.placed.has(role))
      bench.remark('warning', at, `${role} has been placed already.`, 'Declare another stone if there are two.')
    bench.placed.add(role)
    bench.work.cores.set(bench.work.firstOf(rail.course), role)
    bench.used.add(role)
    return { type: 'place', role }
  },
}
