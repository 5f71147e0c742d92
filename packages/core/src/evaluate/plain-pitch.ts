import type { Mm } from '../measure/units'
import { beadOf } from '../stitch/hole'
import type { StitchMachine } from '../stitch/stitch-machine'

/**
 * What one repeat adds to a length, by plain rules, from what it has just done: a round in the gaps half a bead's width, arcs half
 * their run, a right-angle unit `L + 0.3 d` of the bead it steps on by; anything else what it has strung, which is a guess.
 *
 * @param beads,courses how many there were before it
 */
export function plainPitch(
  machine: StitchMachine,
  beads: number,
  courses: number,
): { readonly pitch: Mm; readonly guessed: boolean } {
  const { work } = machine
  let pitch = 0
  for (const course of work.courses.slice(courses)) {
    if (course.kind !== 'gaps' && course.kind !== 'arcs') continue
    let [across, length, added] = [0, 0, 0]
    for (let pass = course.from; pass < course.to; pass++) {
      // What lies outside the row, as a spiral's run does, makes it no longer.
      if (!work.isNew(pass) || work.seat(beadOf(work.holeAt(pass))).course < 0) continue
      const role = work.role(beadOf(work.holeAt(pass)))
      const bead = machine.roles.sizingBeadAt(role)
      across += bead.acrossMm
      length += bead.lengthMm
      added++
    }
    if (added > 0) pitch += course.kind === 'gaps' ? across / added / 2 : length / course.stitches / 2
  }
  if (pitch > 0) return { pitch, guessed: false }
  const strung = Array.from({ length: work.beads - beads }, (_, i) => machine.roles.sizingBeadAt(work.role(beads + i)))
  const [first] = strung
  if (!first) return { pitch: 1, guessed: true }
  if (strung.length === 3) return { pitch: first.lengthMm + 0.3 * first.acrossMm, guessed: false }
  return { pitch: strung.reduce((sum, { lengthMm }) => sum + lengthMm, 0), guessed: true }
}
