import { divisors } from '../../measure/whole'
import { asStitches, type BeadList, readBeadList, rolesIn, type Stitch } from '../../notation/bead-list'
import { LineFault, type Span } from '../../notation/fault'
import { runsOf } from '../action'
import type { Bench } from '../bench'
import { beadOf, type Hole } from '../hole'
import { gathered, type Rail } from '../rail'
import type { Technique } from '../technique'

/**
 * `round C`, `round A B`, `round C x6, -`: at each anchor of the rail, picks up the next group of the list and passes through the
 * anchor; then steps up through the first group it added. The anchors of a fresh ring are every second group of it (peyote), as
 * wide as the list's groups (two-drop); of a round, the groups it added.
 */
export const roundTechnique: Technique<BeadList> = {
  word: 'round',
  read: (cursor) => readBeadList(cursor, 'round'),
  work(list, bench, span) {
    const { work } = bench
    bench.needle('round', span)
    for (const { role, span: at } of rolesIn(list)) bench.beadRole(role, at)
    const stitches = asStitches(list, bench)
    const rail = bench.rail('round', span)
    const { anchors, skipped } = anchorsOf(rail, stitches, list.span)
    const n = anchors.length
    if (stitches.length === 0 || n % stitches.length !== 0) throw notWhole(stitches.length, n, rail, list.span)
    const added = stitches.reduce((sum, stitch) => sum + stitch.length, 0) * (n / stitches.length)
    if (added === 0)
      throw new LineFault(list.span, 'This round picks up nothing at all.', 'Use "reinforce" to go round once more.')
    bench.makeRoom(added, anchors.reduce((sum, anchor) => sum + anchor.length, 0) + added, span)

    const row = rail.fresh ? rail.row + 1.5 * rail.side : rail.row + rail.side
    if (rail.fresh) settleRing(anchors, skipped, rail, bench)
    const groups: Hole[][] = []
    let before = lastTurn(anchors[n - 1] as Hole[], bench)
    let firstDone = -1
    for (let i = 0; i < n; i++) {
      const anchor = anchors[i] as Hole[]
      const stitch = stitches[i % stitches.length] as Stitch
      const next = work.seat(beadOf(anchor[0] as Hole)).turn
      if (stitch.length > 0) {
        const gap = forward(before, next)
        groups.push(
          stitch.map((letter, k) =>
            work.pick(bench.beadRole(letter, list.span), k === 0 ? 'peyote' : 'ring', bench.statement, {
              turn: before + (gap * (k + 1)) / (stitch.length + 1),
              row,
            }),
          ),
        )
        if (firstDone < 0) firstDone = work.passes
      }
      passGroup(anchor, bench)
      before = lastTurn(anchor, bench)
    }
    // Steps up: past the anchors of any stitches that added nothing, to the first group that was added.
    for (let i = 0; (stitches[i % stitches.length] as Stitch).length === 0; i++) passGroup(anchors[i] as Hole[], bench)
    const first = groups[0] as Hole[]
    passGroup(first, bench)

    bench.trail = { what: 'round', from: firstDone, to: work.passes }
    bench.edges[bench.edge] = {
      ...rail,
      fresh: false,
      row,
      perRingBead: groups.length / rail.ringCount,
      groups: [...groups.slice(1), first],
    }
    if (rail.fresh) {
      bench.edges.back = {
        ...rail,
        fresh: false,
        row: rail.row - 0.5 * rail.side,
        side: -rail.side as 1 | -1,
        perRingBead: skipped.length / rail.ringCount,
        groups: skipped,
      }
    }
    bench.roundsOn[bench.edge]++
    return {
      type: 'round',
      stitches: n,
      cycle: toldTogether(stitches),
      turns: n / stitches.length,
      added,
      round: bench.roundsOn[bench.edge],
      edge: bench.edge,
      standing: groups.length,
    }
  },
}

function passGroup(group: readonly Hole[], bench: Bench): void {
  group.forEach((h, i) => {
    bench.work.pass(h, i === 0 ? 'peyote' : 'ring', bench.statement)
  })
}

const lastTurn = (group: readonly Hole[], bench: Bench) => bench.work.seat(beadOf(group[group.length - 1] as Hole)).turn

/** How far on from one share of the way round to another, going forward. */
const forward = (from: number, to: number) => {
  const gap = (to - from) % 1
  return gap <= 0 ? gap + 1 : gap
}

/** On a fresh ring the groups skipped and the groups passed come to lie half a bead to either side of it. */
function settleRing(anchors: readonly Hole[][], skipped: readonly Hole[][], rail: Rail, bench: Bench): void {
  for (const [groups, offset] of [
    [anchors, 0.5],
    [skipped, -0.5],
  ] as const) {
    for (const h of groups.flat())
      bench.work.reseat(beadOf(h), { ...bench.work.seat(beadOf(h)), row: rail.row + offset * rail.side })
  }
}

/** What the round passes, in order, and what it leaves for the other edge. */
function anchorsOf(rail: Rail, stitches: readonly Stitch[], span: Span): { anchors: Hole[][]; skipped: Hole[][] } {
  if (!rail.fresh) return { anchors: rail.groups.map((group) => [...group]), skipped: [] }
  const drop = Math.max(1, ...stitches.map((stitch) => stitch.length))
  const holes = rail.groups.flat()
  if (holes.length % (2 * drop) !== 0) {
    const step = 2 * drop
    const below = Math.floor(holes.length / step) * step
    const how = drop === 1 ? 'even' : `a multiple of ${step}`
    throw new LineFault(
      span,
      `The ring has ${holes.length} beads; ${drop === 1 ? 'peyote' : `${drop} beads a stitch`} in the round needs ${how}.`,
      `${below > 0 ? `${below} or ` : ''}${below + step} would do${drop === 1 ? '; or stitch once over two beads' : ''}.`,
    )
  }
  const groups = gathered(holes, drop)
  return { anchors: groups.filter((_, i) => i % 2 === 1), skipped: groups.filter((_, i) => i % 2 === 0) }
}

/** The list does not go round evenly: says what would, and which ring counts would make it so. */
function notWhole(cycle: number, anchors: number, rail: Rail, span: Span): LineFault {
  if (cycle === 0) return new LineFault(span, 'This round has no stitches.', 'Give it a bead: round A.')
  const perRingBead = rail.fresh ? anchors / rail.ringCount : rail.perRingBead
  const step = cycle / perRingBead
  const rings = [Math.floor(rail.ringCount / step) * step, Math.floor(rail.ringCount / step) * step + step].filter(
    (count) => count > 0 && Number.isInteger(count) && count % 2 === 0,
  )
  const lists = divisors(anchors).filter((n) => n <= 12)
  return new LineFault(
    span,
    `There are ${anchors} stitches in this round and the list has ${cycle}: ${anchors} is ${Math.floor(anchors / cycle)} x ${cycle} and ${anchors % cycle} over.`,
    `A list of ${orOf(lists)} stitches would go round${rings.length > 0 ? `; so would a ring of ${orOf(rings)} beads` : ''}.`,
  )
}

const orOf = (numbers: readonly number[]) =>
  numbers.length < 2 ? numbers.join('') : `${numbers.slice(0, -1).join(', ')} or ${numbers[numbers.length - 1]}`

/** Equal stitches in a row are told once with their number. */
function toldTogether(stitches: readonly Stitch[]) {
  const told: { beads: ReturnType<typeof runsOf>; times: number; key: string }[] = []
  for (const stitch of stitches) {
    const key = stitch.join(' ')
    const last = told[told.length - 1]
    if (last?.key === key) last.times++
    else told.push({ beads: runsOf(stitch), times: 1, key })
  }
  return told.map(({ beads, times }) => ({ beads, times }))
}
