import { sayPercent, trim } from '../../measure/units'
import { LineFault, type Span } from '../../notation/fault'
import { readTarget, type TargetWords } from '../../notation/parse-target'
import { seatVerdict, seatWords } from '../../sizing/stone-hold'
import { ringForStone, type StoneRing } from '../stone-ring'
import { find } from '../target'
import type { Technique } from '../technique'
import { walkedAlong } from '../walked-along'

/**
 * `place S`, `place S in wall`: the stone goes into the ring in hand, or the one named; the thread does nothing. Named again with another ring,
 * it lies in that one too.
 */
export const placeTechnique: Technique<{ role: string; at: Span; where: TargetWords | undefined }> = {
  word: 'place',
  read(cursor) {
    const name = cursor.expect('Name', "a stone's letter", 'For example: place S.')
    return { role: name.text, at: name, where: cursor.take('Word', 'in') ? readTarget(cursor) : undefined }
  },
  work({ role, at, where }, machine, span) {
    const stone = machine.stone(role, at)
    if (!stone) {
      const bead = machine.bead(role, at)
      const stones = [...machine.roles.byLetter.values()].flatMap((each) => (each.type === 'stone' ? each.letter : []))
      const meant = stones.length === 1 && !bead ? stones[0] : undefined
      throw new LineFault(
        at,
        bead ? `${role} is a bead; it is picked up, not placed.` : `There is no stone ${role} in this pattern.`,
        meant
          ? `Did you mean ${meant}?`
          : stones.length > 0
            ? `Its stones are ${stones.join(', ')}.`
            : 'Declare it: stone S round 14 mm, and place S.',
        meant,
      )
    }
    const ring = ringForStone(
      { letter: role, stone },
      where && walkedAlong(find(where, machine), machine.work),
      machine,
      span,
    )
    const beads = ring.holes.length
    const { work } = machine
    const held = [...work.cores].find(([, stone]) => stone === role)?.[0]
    // A second ring round a stone has a verdict of its own; the stone lies where it lay. A line that is done again lays another in.
    const again = machine.placed.get(role) === machine.statement
    const there = ring.course === undefined ? undefined : work.cores.get(ring.course)
    if (there !== undefined && there !== role)
      throw new LineFault(
        at,
        `${there} lies in this ring already; a second stone has no room there.`,
        `Make a ring for ${role}, or name the one it goes into: place ${role} in NAME.`,
      )
    const another = held !== undefined && where !== undefined && ring.course !== held && !again
    if (ring.course !== undefined && work.courses[ring.course]?.kind === 'ring') {
      const { ease } = ring
      const hold = another ? undefined : machine.formed?.held?.[role]
      const verdict = seatVerdict(ring.verdict, hold)
      machine.fits.push({ stone: role, beads, ease, verdict })
      const sits = verdict === 'snug' || verdict === 'loose'
      machine.remark(
        sits ? 'note' : 'warning',
        at,
        `${seatWords({ stone: role, beads, ease, verdict: ring.verdict }, hold)}${oddWords(ring)}`,
        sits ? undefined : `Let the count follow the stone: ring ... with fit(${role}, A).`,
      )
    }
    if (machine.placed.has(role) && !another)
      machine.remark('warning', at, `${role} has been placed already.`, 'Declare another stone if there are two.')
    if (!machine.placed.has(role)) machine.placed.set(role, machine.statement)
    machine.roles.used.add(role)
    if (!another)
      work.cores.set(ring.course ?? work.gather(ring.holes, (bead) => machine.roles.lengthOf(work.role(bead))), role)
    return { type: 'place', role, another: another ? beads : undefined }
  },
}

/** A bead that was missed in counting shows here first. */
function oddWords({ holes, lengthMm, ease }: StoneRing): string {
  const beads = holes.length
  if (beads % 2 === 0) return ''
  const withOne = (1 + ease) * (1 + 1 / beads) - 1
  return ` ${beads} is one bead short of an even number: ${beads + 1} would be ${sayPercent(withOne)}, ${trim((lengthMm / beads) * (beads + 1), 1)} mm round.`
}
